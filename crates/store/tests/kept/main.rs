//! What is kept, in a real database.

mod devices;
mod history;
mod house;
mod shelf;
