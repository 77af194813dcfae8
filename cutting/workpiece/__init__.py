"""What is cut: machinability groups, materials, tolerances."""
