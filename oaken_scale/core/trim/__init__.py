"""Balance: where it should be and by which school, checks by hand, the least to do about it."""
