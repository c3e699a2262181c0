package fixshelf.plan;

import java.util.Optional;

/// A part of a line that its author fills.
///
/// @param fallback what stands in it when nothing is written; none when it must be filled, or may be left out
/// @param needed whether it must be filled
/// @param about one sentence for its reader
/// @param unsaid what a sentence says of it when it is left out and nothing stands for it
public record Blank<T>(
        String name,
        Kind<T> kind,
        Optional<Written> fallback,
        boolean needed,
        String about,
        String unsaid,
        boolean begins) {
    public Blank(String name, Kind<T> kind, Optional<Written> fallback, boolean needed, String about) {
        this(name, kind, fallback, needed, about, "the usual " + name, needed);
    }

    /// One that must be filled.
    public static <T> Blank<T> needed(String name, Kind<T> kind, String about) {
        return new Blank<>(name, kind, Optional.empty(), true, about);
    }

    /// One that means this when nothing is written.
    public static <T> Blank<T> usually(String name, Kind<T> kind, String fallback, String about) {
        return new Blank<>(name, kind, Optional.of(Written.word(fallback)), false, about);
    }

    /// The same, with other words for one that is left out.
    public Blank<T> leftOutAs(String words) {
        return new Blank<>(name, kind, fallback, needed, about, words, begins);
    }

    /// The same, filled at the beginning of a new line although it may be left out.
    public Blank<T> begun() {
        return new Blank<>(name, kind, fallback, needed, about, unsaid, true);
    }

    /// One that may be left out.
    public static <T> Blank<T> optional(String name, Kind<T> kind, String about) {
        return new Blank<>(name, kind, Optional.empty(), false, about);
    }
}
