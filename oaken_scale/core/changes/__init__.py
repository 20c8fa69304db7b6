"""What is done to a build: each act a function of the build as it was."""
