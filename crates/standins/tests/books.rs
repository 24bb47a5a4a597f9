//! The program itself: what is booked lies in its books, whatever becomes of it.

use std::{
    io::{BufRead as _, BufReader, Read as _, Write as _},
    net::TcpStream,
    path::Path,
    process::{Child, Command, Stdio},
};

use serde_json::{Value, json};

/// Starts it with books in a file, and says where it listens.
fn started(books: &Path) -> (Child, String) {
    let mut process = Command::new(env!("CARGO_BIN_EXE_hummock-standins"))
        .args(["--port", "0", "--tariffs"])
        .arg(Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/tariffs"))
        .arg("--books")
        .arg(books)
        .stdout(Stdio::piped())
        .spawn()
        .expect("it starts");
    let out = process.stdout.take().expect("it speaks");
    let mut said = String::new();
    BufReader::new(out).read_line(&mut said).expect("a line");
    let (_, at) = said.trim().rsplit_once("//").expect("an address");
    (process, at.to_owned())
}

/// Asks it, in the plainest HTTP.
fn asked(at: &str, method: &str, path: &str, key: &str, body: &Value) -> Value {
    let body = body.to_string();
    let mut stream = TcpStream::connect(at).expect("it listens");
    write!(
        stream,
        "{method} /carrier{path} HTTP/1.1\r\nhost: {at}\r\nconnection: close\r\nidempotency-key: {key}\r\n\
         content-type: application/json\r\ncontent-length: {}\r\n\r\n{body}",
        body.len()
    )
    .expect("it reads");
    let mut answer = String::new();
    stream.read_to_string(&mut answer).expect("it answers");
    let from = answer.find(['{', '[']).expect("JSON");
    let to = answer.rfind(['}', ']']).expect("JSON");
    serde_json::from_str(&answer[from..=to]).expect("JSON")
}

#[test]
fn what_is_booked_outlives_a_kill_and_what_is_forgotten_stays_so() {
    let folder = tempfile::tempdir().expect("a folder");
    let books = folder.path().join("books.json");
    let booking = json!({
        "service": "parcel",
        "parcel": { "length_mm": 600, "width_mm": 400, "height_mm": 100, "mass_kg": 3.6 },
        "destination": { "country": "XS", "postcode": "TB1" },
        "value": "320", "ready_on": "2027-03-05", "to": ["Oda Marsh"],
    });
    let (mut process, at) = started(&books);
    let first = asked(&at, "POST", "/gannet-post/bookings", "one", &booking);
    assert!(first["tracking"].is_string(), "{first}");
    asked(
        &at,
        "DELETE",
        "/gannet-post/bookings/two",
        "two",
        &Value::Null,
    );
    process.kill().expect("it is killed");
    process.wait().expect("it ends");
    let (mut process, at) = started(&books);
    let again = asked(&at, "POST", "/gannet-post/bookings", "one", &booking);
    assert_eq!(again["tracking"], first["tracking"]);
    let forgotten = asked(&at, "POST", "/gannet-post/bookings", "two", &booking);
    assert_eq!(forgotten["says"], "it was cancelled");
    let all = asked(&at, "GET", "/bookings", "", &Value::Null);
    assert_eq!(all.as_array().map(Vec::len), Some(1), "{all}");
    process.kill().expect("it is killed");
    process.wait().expect("it ends");
}
