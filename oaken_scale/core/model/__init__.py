"""What a build is: its parts, lots, drawing and diary; its faults; what people type."""
