//! The program as a household starts it: its words, its exit codes, its files, its door to the home network.

mod common;
mod disk;
mod network;
mod starting;
