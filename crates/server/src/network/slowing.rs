//! Slowing down whoever guesses.

use std::{
    collections::HashMap,
    net::{IpAddr, Ipv6Addr},
    sync::Arc,
    sync::Mutex,
    time::{Duration, Instant},
};

use tokio::sync::Semaphore;

/// Slips of a finger that cost nothing.
const FREE: u32 = 4;
const FIRST_WAIT: Duration = Duration::from_secs(2);
const LONGEST_WAIT: Duration = Duration::from_secs(15 * 60);
/// Whoever has been silent for so long begins anew.
const FORGOTTEN_AFTER: Duration = Duration::from_secs(60 * 60);
/// How many neighbours are remembered.
const MOST: usize = 1024;

/// Wrong passphrases, by where they came from.
#[derive(Debug, Default)]
pub(crate) struct Attempts(Mutex<HashMap<IpAddr, Wrong>>);

#[derive(Debug, Clone, Copy)]
struct Wrong {
    times: u32,
    last: Instant,
}

impl Wrong {
    fn wait(self) -> Duration {
        let over = self.times.saturating_sub(FREE);
        match over.checked_sub(1) {
            None => Duration::ZERO,
            Some(doublings) => FIRST_WAIT
                .saturating_mul(1 << doublings.min(20))
                .min(LONGEST_WAIT),
        }
    }
}

/// Whoever has one address of six has a whole network of them.
fn neighbour(from: IpAddr) -> IpAddr {
    match from.to_canonical() {
        IpAddr::V6(six) => {
            let [a, b, c, d, ..] = six.segments();
            Ipv6Addr::new(a, b, c, d, 0, 0, 0, 0).into()
        }
        four => four,
    }
}

impl Attempts {
    /// Returns how long somebody has still to wait before the next attempt.
    pub(crate) fn to_wait(&self, from: IpAddr, now: Instant) -> Option<Duration> {
        let wrong = *self.lock().get(&neighbour(from))?;
        let waited = now.saturating_duration_since(wrong.last);
        wrong
            .wait()
            .checked_sub(waited)
            .filter(|left| !left.is_zero())
    }

    /// Notes a wrong one.
    pub(crate) fn was_wrong(&self, from: IpAddr, now: Instant) {
        let mut all = self.lock();
        all.retain(|_, wrong| now.saturating_duration_since(wrong.last) < FORGOTTEN_AFTER);
        if all.len() >= MOST {
            let oldest = all.iter().min_by_key(|(_, wrong)| wrong.last);
            if let Some(oldest) = oldest.map(|(&from, _)| from) {
                all.remove(&oldest);
            }
        }
        let wrong = all.entry(neighbour(from)).or_insert(Wrong {
            times: 0,
            last: now,
        });
        wrong.times = wrong.times.saturating_add(1);
        wrong.last = now;
    }

    /// Forgets the slips of whoever gave the right one.
    pub(crate) fn was_right(&self, from: IpAddr) {
        self.lock().remove(&neighbour(from));
    }

    fn lock(&self) -> std::sync::MutexGuard<'_, HashMap<IpAddr, Wrong>> {
        // Nobody panics while holding it.
        self.0
            .lock()
            .unwrap_or_else(std::sync::PoisonError::into_inner)
    }
}

/// One passphrase is looked at at a time, since each takes memory and a while.
#[derive(Debug, Clone)]
pub(crate) struct OneAtATime(pub(super) Arc<Semaphore>);

impl Default for OneAtATime {
    fn default() -> Self {
        Self(Arc::new(Semaphore::new(1)))
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    const HERE: IpAddr = IpAddr::V4(std::net::Ipv4Addr::new(192, 168, 1, 30));

    #[test]
    fn waits_double_after_four_slips() {
        let attempts = Attempts::default();
        let start = Instant::now();
        let waits: Vec<u64> = (0..8)
            .map(|_| {
                attempts.was_wrong(HERE, start);
                attempts
                    .to_wait(HERE, start)
                    .map_or(0, |wait| wait.as_secs())
            })
            .collect();
        assert_eq!(waits, [0, 0, 0, 0, 2, 4, 8, 16]);
        // 5 s of the 16 have passed
        let later = start + Duration::from_secs(5);
        assert_eq!(attempts.to_wait(HERE, later), Some(Duration::from_secs(11)));
        assert_eq!(attempts.to_wait([192, 168, 1, 31].into(), later), None);
        attempts.was_right(HERE);
        assert_eq!(attempts.to_wait(HERE, start), None);
    }

    #[test]
    fn a_whole_network_of_six_is_one_neighbour() {
        let attempts = Attempts::default();
        let now = Instant::now();
        for last in 0..6 {
            attempts.was_wrong(Ipv6Addr::new(0xfd00, 1, 2, 3, 9, 9, 9, last).into(), now);
        }
        let same = Ipv6Addr::new(0xfd00, 1, 2, 3, 0, 0, 0, 77);
        assert!(attempts.to_wait(same.into(), now).is_some());
        assert!(
            attempts
                .to_wait(Ipv6Addr::new(0xfd00, 1, 2, 4, 0, 0, 0, 77).into(), now)
                .is_none()
        );
    }

    #[test]
    fn a_crowd_is_remembered_up_to_a_number() {
        let attempts = Attempts::default();
        let now = Instant::now();
        for number in 0..3000_u32 {
            attempts.was_wrong(
                std::net::Ipv4Addr::from_bits(0x0a00_0000 | number).into(),
                now,
            );
        }
        assert_eq!(attempts.lock().len(), MOST);
    }

    proptest! {
        /// Whoever tries as soon as it is allowed does best by being silent for an hour whenever 13 were wrong: 5 at
        /// once, 8 after 2, 4 … 256 s, 4110 s in all. That makes 21 times 13 in a day, and 13 of a last time.
        #[test]
        fn nobody_tries_often(
            pauses in prop::collection::vec(prop_oneof![12 => Just(0), 1 => 1..4000_u64, 1 => Just(3600)], 1..400)
        ) {
            let attempts = Attempts::default();
            let start = Instant::now();
            let day = Duration::from_secs(24 * 60 * 60);
            let (mut now, mut tried) = (start, 0_u32);
            for pause in pauses {
                now += Duration::from_secs(pause);
                now += attempts.to_wait(HERE, now).unwrap_or_default();
                if now > start + day {
                    break;
                }
                prop_assert_eq!(attempts.to_wait(HERE, now), None);
                attempts.was_wrong(HERE, now);
                tried += 1;
            }
            prop_assert!(tried <= 22 * 13, "{tried}");
        }
    }
}
