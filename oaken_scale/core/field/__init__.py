"""Before the flight and after it: the list, throws, what to try next, repairs over time."""
