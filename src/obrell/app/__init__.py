"""Use cases: what can be done with Obrell, for web, command line and tests alike; free of HTTP, HTML and terminals."""
