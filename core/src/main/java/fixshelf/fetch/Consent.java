package fixshelf.fetch;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.RealPath;
import fixshelf.shelf.UserFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArraySet;

/// What a shelf may read outside of its folder, and which servers its jobs may write to. A shelf can come from somebody
/// else, so its user says once, for each shelf, which folders and which hosts; that is kept for the user, outside of
/// every shelf, and no page can say it. That something may be read is no leave to write to it.
public final class Consent {
    private static final String KEPT = "allowed-sources";
    /// Before what may be written to, as it is kept.
    private static final String WRITTEN = "> ";

    private static final Set<Place> FOR_NOW = new CopyOnWriteArraySet<>();

    private Consent() {}

    /// A place that a shelf asks for: a folder, or a host with its port.
    ///
    /// @param name as the user sees and writes it; a folder is absolute
    /// @param written whether it is to be written to
    public record Place(String name, boolean written) {
        /// A place to read from.
        Place(String name) {
            this(name, false);
        }

        /// What a user writes: a folder, a file for its folder, or a host; to read from.
        public static Place of(String typed) {
            String text = typed.strip();
            if (text.startsWith("jdbc:")) {
                return new Place(text);
            }
            boolean path = text.indexOf('/') >= 0
                    || text.indexOf('\\') >= 0
                    || text.startsWith(".")
                    || Files.exists(Path.of(text));
            if (!path) {
                return new Place(text.toLowerCase(Locale.ROOT));
            }
            Path real = RealPath.of(Path.of(text));
            return new Place((Files.isRegularFile(real) ? real.getParent() : real).toString());
        }

        /// The folder of a file; empty where that is inside of the shelf.
        public static Optional<Place> of(Path shelf, Path file) {
            Path real = RealPath.of(file);
            return real.startsWith(RealPath.of(shelf))
                    ? Optional.empty()
                    : Optional.of(new Place(
                            Optional.ofNullable(real.getParent()).orElse(real).toString()));
        }

        /// A host as an address names it.
        static Place host(String host, int port) {
            return new Place(host.toLowerCase(Locale.ROOT) + (port > 0 ? ":" + port : ""));
        }

        /// The same place, to be written to.
        public Place toWrite() {
            return new Place(name, true);
        }

        /// In words: to read, or to write.
        public String shown() {
            return (written ? "writing to " : "reading from ") + name;
        }

        private String kept() {
            return written ? WRITTEN + name : name;
        }

        private static Place ofKept(String line) {
            return line.startsWith(WRITTEN) ? new Place(line.substring(WRITTEN.length()), true) : new Place(line);
        }

        private boolean isFolder() {
            return Path.of(name).isAbsolute();
        }

        /// Whether it is a place that was allowed, or in a folder, or a port of a host, that was.
        private boolean isIn(Place allowed) {
            if (written != allowed.written || isFolder() != allowed.isFolder()) {
                return false;
            }
            return isFolder()
                    ? Path.of(name).startsWith(allowed.name)
                    : name.equals(allowed.name) || name.startsWith(allowed.name + ":");
        }
    }

    /// Whether the user allowed it, for this shelf or for now.
    public static boolean isGiven(Path shelf, Place place) {
        return FOR_NOW.stream().anyMatch(place::isIn)
                || of(shelf).stream().anyMatch(place::isIn)
                || !place.written()
                        && place.isFolder()
                        && UserFolder.allowedBySystem().stream()
                                .anyMatch(f -> Path.of(place.name()).startsWith(RealPath.of(f)));
    }

    /// Why a place must not be touched; empty where it may be.
    public static Optional<Problem> objection(Path shelf, Place place) {
        if (isGiven(shelf, place)) {
            return Optional.empty();
        }
        String wants = place.written()
                ? "write to "
                : place.isFolder() ? "read a file outside of its folder, in " : "read something from ";
        return Optional.of(Problem.about(
                place.written() ? Code.NOT_ALLOWED_TO_WRITE : Code.NOT_ALLOWED,
                place.name(),
                "This shelf wants to " + wants + place.name() + ", which you have not allowed.",
                "If you trust it: fixshelf allow " + (place.written() ? "--write " : "--read ") + typed(place.name())
                        + ", or --allow " + typed(place.name()) + " for this once."));
    }

    /// As it is typed on a command line: in quotes where a shell would read more than a word.
    private static String typed(String name) {
        return name.matches("[\\p{L}\\p{N}._/:@+=,-]+") ? name : "'" + name.replace("'", "'\\''") + "'";
    }

    /// Does not come back where a place must not be touched.
    static void want(Path shelf, Place place) {
        objection(shelf, place).ifPresent(p -> {
            throw new ProblemException(p);
        });
    }

    /// Lets every shelf use a place for as long as this program runs.
    public static void forNow(Place place) {
        FOR_NOW.add(place);
    }

    /// Remembers that a shelf may use a place.
    public static void keep(Path shelf, Place place) throws IOException {
        UserFolder.add(KEPT, line(shelf, place));
    }

    /// Takes back that a shelf may read from a place, or write to it.
    public static void takeBack(Path shelf, Place place) throws IOException {
        UserFolder.remove(KEPT, Set.of(line(shelf, new Place(place.name())), line(shelf, place.toWrite())));
    }

    /// What a problem asks for, to read or to write; empty where it asks for nothing.
    public static Optional<Place> askedBy(Problem problem) {
        Place place = new Place(problem.where().source().name());
        return switch (problem.code()) {
            case NOT_ALLOWED -> Optional.of(place);
            case NOT_ALLOWED_TO_WRITE -> Optional.of(place.toWrite());
            default -> Optional.empty();
        };
    }

    /// All that problems ask for, each once.
    public static List<Place> askedBy(List<Problem> problems) {
        return problems.stream().flatMap(p -> askedBy(p).stream()).distinct().toList();
    }

    /// The places that a shelf may use.
    public static List<Place> of(Path shelf) {
        String begins = line(shelf, new Place(""));
        return UserFolder.lines(KEPT).stream()
                .filter(l -> l.startsWith(begins) && l.length() > begins.length())
                .map(l -> Place.ofKept(l.substring(begins.length())))
                .toList();
    }

    private static String line(Path shelf, Place place) {
        return RealPath.of(shelf) + "\t" + place.kept();
    }
}
