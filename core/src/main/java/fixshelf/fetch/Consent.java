package fixshelf.fetch;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.UserFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CopyOnWriteArraySet;
import java.util.stream.Stream;

/// What a shelf may read outside of its folder. A shelf can come from somebody else, so its user says once, for each
/// shelf, which folders and which hosts; that is kept for the user, outside of every shelf, and no page can say it.
public final class Consent {
    private static final String KEPT = "allowed-sources";
    private static final String WRITTEN = "> ";
    private static final Set<String> FOR_NOW = new CopyOnWriteArraySet<>();

    private Consent() {}

    /// A place that a shelf asks for: a folder, or a host with its port.
    ///
    /// @param name as the user sees and writes it
    public record Place(String name, boolean written) {
        public Place(String name) {
            this(name, false);
        }

        /// In words: to read, or to write.
        public String shown() {
            return (written ? "writing to " : "reading from ") + name;
        }

        /// The same place, to be written to.
        public Place toWrite() {
            return new Place(name, true);
        }

        /// As it is kept: what is written to is told apart by a sign.
        private String kept() {
            return written ? WRITTEN + name : name;
        }

        /// The folder of a file; empty where that is inside of the shelf.
        public static Optional<Place> of(Path shelf, Path file) {
            Path real = real(file);
            Path folder = Optional.ofNullable(real.getParent()).orElse(real);
            return real.startsWith(real(shelf)) ? Optional.empty() : Optional.of(new Place(folder.toString()));
        }

        /// A host as an address names it.
        public static Place host(String host, int port) {
            return new Place(host.toLowerCase(Locale.ROOT) + (port > 0 ? ":" + port : ""));
        }

        private boolean isIn(String allowed) {
            if (allowed.equals(kept()) || written) {
                return allowed.equals(kept());
            }
            boolean folder = isFolder();
            boolean other = isPath(allowed);
            return folder == other
                    && (folder ? Path.of(name).startsWith(real(Path.of(allowed))) : name.startsWith(allowed + ":"));
        }

        boolean isFolder() {
            return isPath(name);
        }
    }

    private static boolean isPath(String name) {
        return name.indexOf('/') >= 0 && name.indexOf(':') <= 1 || name.indexOf('\\') >= 0 || name.startsWith(".");
    }

    /// Whether the user allowed it, for this shelf or for now.
    public static boolean isGiven(Path shelf, Place place) {
        return FOR_NOW.stream().anyMatch(n -> n.equals(place.name()) || place.isIn(n))
                || kept().stream().anyMatch(k -> k.shelf().equals(real(shelf).toString()) && place.isIn(k.place()))
                || fromSystem().anyMatch(place::isIn);
    }

    private static Stream<String> fromSystem() {
        String named = System.getenv("FIXSHELF_ALLOW");
        return named == null
                ? Stream.empty()
                : Stream.of(named.split(java.io.File.pathSeparator)).filter(p -> !p.isBlank());
    }

    /// Why a place must not be touched; empty where it may be.
    public static Optional<Problem> objection(Path shelf, Place place) {
        if (isGiven(shelf, place)) {
            return Optional.empty();
        }
        if (place.written()) {
            return Optional.of(Problem.about(
                    Code.NOT_ALLOWED_TO_WRITE,
                    place.name(),
                    "This shelf wants to write to " + place.name() + ", which you have not allowed.",
                    "If you want that: fixshelf allow --write " + place.name() + ", or --allow " + place.name()
                            + " for this once."));
        }
        String what = place.isFolder() ? "a file outside of its folder, in " : "something from ";
        return Optional.of(Problem.about(
                Code.NOT_ALLOWED,
                place.name(),
                "This shelf wants to read " + what + place.name() + ", which you have not allowed.",
                "If you trust it: fixshelf allow --read " + place.name() + ", or --allow " + place.name()
                        + " for this once."));
    }

    /// Does not come back where a place must not be touched.
    static void want(Path shelf, Place place) {
        objection(shelf, place).ifPresent(p -> {
            throw new ProblemException(p);
        });
    }

    /// Lets every shelf read there for as long as this program runs.
    public static void forNow(String place) {
        FOR_NOW.add(plain(place));
    }

    /// Remembers that a shelf may read from a place.
    public static void keep(Path shelf, String place) throws IOException {
        keep(shelf, new Place(plain(place)));
    }

    /// Remembers that a shelf may read from a place, or write to it.
    public static void keep(Path shelf, Place place) throws IOException {
        Set<String> lines = new TreeSet<>(lines());
        lines.add(new Kept(real(shelf).toString(), place.kept()).line());
        write(lines);
    }

    /// Takes back that a shelf may read from a place.
    public static void takeBack(Path shelf, String place) throws IOException {
        Set<String> lines = new TreeSet<>(lines());
        lines.remove(new Kept(real(shelf).toString(), plain(place)).line());
        lines.remove(new Kept(real(shelf).toString(), WRITTEN + plain(place)).line());
        write(lines);
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

    /// The places that a shelf may read from; those that it may write to begin with a sign.
    public static List<String> of(Path shelf) {
        return kept().stream()
                .filter(k -> k.shelf().equals(real(shelf).toString()))
                .map(Kept::place)
                .toList();
    }

    private static String plain(String place) {
        if (place.startsWith("jdbc:")) {
            return place;
        }
        return isPath(place) ? real(Path.of(place)).toString() : place.toLowerCase(Locale.ROOT);
    }

    private record Kept(String shelf, String place) {
        String line() {
            return shelf + '\t' + place;
        }
    }

    private static Path file() {
        return UserFolder.path().resolve(KEPT);
    }

    private static List<Kept> kept() {
        return lines().stream()
                .map(l -> l.split("\t", 2))
                .filter(p -> p.length == 2)
                .map(p -> new Kept(p[0], p[1]))
                .toList();
    }

    private static List<String> lines() {
        try {
            return Files.isRegularFile(file()) ? Files.readAllLines(file()) : List.of();
        } catch (IOException e) {
            System.getLogger(Consent.class.getName()).log(System.Logger.Level.WARNING, "not read: " + file(), e);
            return List.of();
        }
    }

    private static void write(Set<String> lines) throws IOException {
        Files.createDirectories(file().getParent());
        Files.writeString(file(), lines.isEmpty() ? "" : String.join("\n", lines) + "\n");
    }

    /// The path with the links of all folders that are there already followed.
    private static Path real(Path file) {
        Path known = file.toAbsolutePath().normalize();
        List<Path> rest = new ArrayList<>();
        while (known != null && !Files.exists(known)) {
            rest.addFirst(known.getFileName());
            known = known.getParent();
        }
        try {
            Path real = known == null ? file.toAbsolutePath().normalize() : known.toRealPath();
            for (Path name : rest) {
                real = real.resolve(name);
            }
            return real;
        } catch (IOException e) {
            return file.toAbsolutePath().normalize();
        }
    }
}
