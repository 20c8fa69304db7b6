"""Motor, propeller and pack as one estimate."""
