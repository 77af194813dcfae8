"""Reads, explains and writes the designations of inserts, holders, bars and threading inserts."""
