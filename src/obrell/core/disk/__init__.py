"""Safe use of the disk: whole files, private folders, our own temporary folder, and whether there is room."""
