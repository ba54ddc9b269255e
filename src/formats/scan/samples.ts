/* Texts as a scanner writes them, made by hand after the form of `iw dev ... scan` and `survey dump`; nobody's networks. */

/** 5 GHz: an 80 MHz network with its load, and one of 20 MHz. */
export const FIVE_GHZ = `BSS 02:00:00:00:10:01(on wlp2s0)
	last seen: 4021.331s [boottime]
	TSF: 1829301823 usec (0d, 00:30:29)
	freq: 5180
	beacon interval: 100 TUs
	capability: ESS Privacy SpectrumMgmt RadioMeasure (0x1111)
	signal: -61.00 dBm
	last seen: 12 ms ago
	Information elements from Probe Response frame:
	SSID: Loft upstairs
	Supported rates: 6.0* 9.0 12.0* 18.0 24.0* 36.0 48.0 54.0
	BSS Load:
		 * station count: 4
		 * channel utilisation: 102/255
		 * available admission capacity: 0 [*32us]
	HT capabilities:
		Capabilities: 0x9ef
	HT operation:
		 * primary channel: 36
		 * secondary channel offset: above
		 * STA channel width: any
	VHT operation:
		 * channel width: 1 (80 MHz)
		 * center freq segment 1: 42
		 * center freq segment 2: 0
		 * VHT basic MCS set: 0x0000
BSS 02:00:00:00:10:02(on wlp2s0)
	freq: 5240
	signal: -78.00 dBm
	SSID: Back office
	HT operation:
		 * primary channel: 48
		 * secondary channel offset: no secondary
`;

/** 2.4 GHz with the carriage returns of another system, a hidden name, and a channel of 40 MHz downwards. */
export const TWO_GHZ_CRLF = [
  "BSS 02:00:00:00:24:01(on wlan0) -- associated",
  "\tfreq: 2437.0",
  "\tsignal: -44.00 dBm",
  "\tSSID: \\x00\\x00\\x00\\x00",
  "\tHT operation:",
  "\t\t * primary channel: 6",
  "\t\t * secondary channel offset: below",
  "BSS 02:00:00:00:24:02(on wlan0)",
  "\tfreq: 2412.0",
  "\tsignal: -81.00 dBm",
  "\tSSID: Kiosk \\xc3\\xa9",
].join("\r\n");

/** 6 GHz: no VHT operation there; its first 20 MHz are what is known. */
export const SIX_GHZ = `BSS 02:00:00:00:60:01(on wlan1)
	freq: 5975
	signal: -70.00 dBm
	SSID: Gallery
	HE Operation:
		HE Operation Parameters: (0x023ff4)
		6 GHz Operation Information: 0x0500
`;

/** 160 MHz as two centres eight numbers apart, and as the older code. */
export const WIDE = `BSS 02:00:00:00:16:01(on wlan0)
	freq: 5500
	signal: -66.00 dBm
	SSID: Studio
	HT operation:
		 * primary channel: 100
		 * secondary channel offset: above
	VHT operation:
		 * channel width: 1 (80 MHz)
		 * center freq segment 1: 106
		 * center freq segment 2: 114
BSS 02:00:00:00:16:02(on wlan0)
	freq: 5500
	signal: -72.00 dBm
	SSID: Old studio
	VHT operation:
		 * channel width: 2 (160 MHz)
		 * center freq segment 1: 114
		 * center freq segment 2: 0
`;

/** A survey, and a scan cut off in its midst. */
export const SURVEY_AND_CUT = `Survey data from wlan0
	frequency:			5500 MHz [in use]
	noise:				-93 dBm
	channel active time:		2000 ms
	channel busy time:		500 ms
	channel receive time:		400 ms
	channel transmit time:		20 ms
Survey data from wlan0
	frequency:			5520 MHz
Survey data from wlan0
	noise:				-90 dBm
BSS 02:00:00:00:50:01(on wlan0)
	freq: 5500
	signal: -75.00 dBm
	SSID: Sail loft
BSS 02:00:00:00:50:02(on wlan0)
	freq: 5580
	sig`;

export const SAMPLES = { FIVE_GHZ, TWO_GHZ_CRLF, SIX_GHZ, WIDE, SURVEY_AND_CUT };
