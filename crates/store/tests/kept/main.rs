//! What is kept, in a real database.

mod backup;
mod devices;
mod history;
mod house;
mod shelf;
