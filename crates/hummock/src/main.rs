//! The binary: the application with the pages that it carries.

/// A plan is many small parts: they are made and let go of in half the time.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn main() -> std::process::ExitCode {
    match hummock_server::command(hummock_pages::file) {
        Ok(()) => std::process::ExitCode::SUCCESS,
        Err(error) => {
            // One line for whoever started it; nothing of where it stands in the program.
            eprintln!("hummock: {error:#}");
            std::process::ExitCode::FAILURE
        }
    }
}
