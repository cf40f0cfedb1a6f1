"""Files for an interface to use: formats, names, boxes, bundles."""
