"""Who works here: sign-in, roles and preferences."""
