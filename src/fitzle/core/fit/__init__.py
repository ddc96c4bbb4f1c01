"""From a request to a judged file: resolve, plan, decide, make, judge. The only place that composes the core."""
