"use client";

/** When even the frame could not be drawn: no styles and no providers can be counted on. */
const GlobalError = ({ reset }: { error: Error; reset: () => void }) => (
  <html lang="en-GB">
    <body style={{ fontFamily: "system-ui, sans-serif", padding: 40, maxWidth: "64ch" }}>
      <h1>Dry Arc could not be drawn</h1>
      <p>Everything that was saved is safe, and what you typed since is kept in this browser until it can be sent.</p>
      <p>
        <button type="button" onClick={reset}>
          Try again
        </button>{" "}
        <a href="/">Register of jobs</a>
      </p>
    </body>
  </html>
);

export default GlobalError;
