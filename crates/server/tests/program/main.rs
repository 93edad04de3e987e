//! The program as a household starts it: its words, its exit codes, its files.

mod common;
mod disk;
mod starting;
