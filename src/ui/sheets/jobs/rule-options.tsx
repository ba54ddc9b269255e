/** The rule sets as options of a choice. */
export const RuleOptions = () => (
  <>
    <option value="cautious">Cautious</option>
    <option value="FCC-like">FCC-like</option>
    <option value="ETSI-like">ETSI-like</option>
  </>
);

export const RuleCaution = ({ className }: { className: string }) => (
  <p className={className}>The rule sets are a planning aid; the local regulator decides.</p>
);
