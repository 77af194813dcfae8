"""A hole that an end mill makes: down a helix, or straight down where its end cuts to the middle."""
