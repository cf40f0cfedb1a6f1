"""Controls as SVG documents."""
