// outside a browser a path alone is no address: every request of the tests goes to a host that is nowhere
class HereRequest extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === "string" ? new URL(input, "http://here.test") : input, init);
  }
}
globalThis.Request = HereRequest;
