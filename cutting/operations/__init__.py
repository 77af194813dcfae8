"""One module per kind of operation; the only place that knows what turning or facing is."""
