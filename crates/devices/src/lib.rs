//! Simulated kitchen devices will live here behind one trait; a real device posts readings to the same endpoint.
