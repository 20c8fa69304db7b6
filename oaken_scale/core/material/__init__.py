"""What things are made of: the rack, the drawer, joints and their clocks, the list to buy."""
