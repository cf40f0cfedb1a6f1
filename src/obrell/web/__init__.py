"""The interface: routes parse, call one use case and pick a page. No rules of the job."""
