"""What there is to say about a control's pixels."""
