"""What is saved: kit, control, part, state, colourway; and how a value in it is named."""
