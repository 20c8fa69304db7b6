"""What is printed: one drawing of each page, as PDF for paper and as SVG for the screen."""
