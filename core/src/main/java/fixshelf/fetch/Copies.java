package fixshelf.fetch;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.shelf.OwnFolder;
import fixshelf.source.SourceFile;
import fixshelf.type.Type;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.stream.Stream;

/// Copies of what is in no file, in the shelf's own folder. Of a source that is read live, the copy is made anew for
/// each run and each opening of the shelf; one that is kept is used until it is older than its page says.
public final class Copies {
    /// Whether nobody outside is to be asked.
    private static final ScopedValue<Boolean> HERE = ScopedValue.newInstance();

    /// Copies of this run of the program, which are good for what is read live.
    private static final Set<Path> MADE = ConcurrentHashMap.newKeySet();

    private static final Map<Path, Object> LOCKS = new ConcurrentHashMap<>();

    /// Copies that are not to be used any more, though they stay until there is another.
    private static final Set<Path> STALE = ConcurrentHashMap.newKeySet();

    private Copies() {}

    /// Does `work` so that nobody outside is asked: a copy that is there is taken, however old it
    /// is, and where there is none it is a problem.
    public static <T> T here(Supplier<T> work) {
        return ScopedValue.where(HERE, true).call(work::get);
    }

    /// A file, or the copy of what is in none.
    ///
    /// @param name of the dataset; empty where a job reads by itself
    /// @param options with all values filled in
    public static Outcome<SourceFile> open(Path shelf, String name, ReadOptions options) {
        if (!(options.form().orElse(null) instanceof ReadOptions.Form.Elsewhere form)) {
            Path file = shelf.resolve(options.path()).normalize();
            // Each file that a pattern stands for may be a link to another place.
            return Stream.concat(Stream.of(file), SourceFile.filesOf(file).stream())
                    .flatMap(f -> Consent.Place.of(shelf, f).stream())
                    .flatMap(p -> Consent.objection(shelf, p).stream())
                    .findFirst()
                    .<Outcome<SourceFile>>map(Outcome::failed)
                    .orElseGet(() -> SourceFile.open(file, options));
        }
        return kept(shelf, name.isEmpty() ? options.path() : name, () -> copy(shelf, name, options, form));
    }

    /// The copy of what is worked out of files that are here, made anew when `key` is another, which says all that it
    /// depends on. An older copy goes.
    ///
    /// @param name of the dataset
    /// @param at how old what it is made of is; empty where that does not matter
    /// @param told what is told of the rows, once they are written
    public static Outcome<SourceFile> openMade(
            Path shelf, String name, String key, Source source, Optional<Instant> at, Supplier<String> told) {
        return kept(shelf, name, () -> {
            String base = made(name);
            Path copy = OwnFolder.file(shelf, "copies", base + digest(key) + ".csv");
            Path words = OwnFolder.file(shelf, "copies", base + digest(key) + ".txt");
            if (HERE.isBound() && !Files.isRegularFile(copy)) {
                return notReadYet(name);
            }
            synchronized (LOCKS.computeIfAbsent(copy, _ -> new Object())) {
                if (!Files.isRegularFile(copy) || !Files.isRegularFile(words)) {
                    List<Path> older = all(copy.getParent(), base);
                    make(shelf, source, copy);
                    Files.writeString(words, told.get());
                    for (Path file : older) {
                        if (!file.equals(copy) && !file.equals(words)) {
                            Files.deleteIfExists(file);
                        }
                    }
                }
            }
            String said = Files.readString(words);
            return read(copy, name).map(f -> f.copyOf(new SourceFile.Copied(said, at)));
        });
    }

    /// The copy that [#openMade] made last, however old, without a look at what it depends on.
    public static Outcome<SourceFile> lastMade(Path shelf, String name) {
        return kept(shelf, name, () -> {
            Path folder = OwnFolder.file(shelf, "copies", "any").getParent();
            Optional<Path> copy = all(folder, made(name)).stream()
                    .filter(f -> f.toString().endsWith(".csv"))
                    .findFirst();
            return copy.isPresent() ? read(copy.get(), name) : notReadYet(name);
        });
    }

    private static String made(String name) {
        return "loaded-" + name + "-";
    }

    private static Outcome<SourceFile> notReadYet(String name) {
        return Outcome.failed(
                Problem.about(Code.NOT_READ_YET, name, name + " was not read yet.", "Look at it to read it."));
    }

    /// The copies whose names begin so, before what they depend on.
    private static List<Path> all(Path folder, String base) throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(f -> {
                        String name = f.getFileName().toString();
                        return name.startsWith(base)
                                && name.substring(base.length()).matches("[0-9a-f]{12}\\.(csv|txt)");
                    })
                    .toList();
        }
    }

    /// A file that stands for what a form reads, as in a case of a loader.
    public static Outcome<SourceFile> openFile(Path shelf, Path file, ReadOptions options) {
        ReadOptions here = options.withPath(file.toString());
        if (!(options.form().orElse(null) instanceof ReadOptions.Form.Elsewhere form)) {
            return SourceFile.open(file, here);
        }
        if (!(form instanceof ReadOptions.Form.Web web)) {
            return Outcome.failed(Problem.about(
                    Code.BAD_CASE,
                    file.toString(),
                    "A file cannot stand for a server.",
                    "Write the rows that it would send as `given`."));
        }
        return kept(shelf, file.toString(), () -> {
            Path copy = OwnFolder.file(
                    shelf, "copies", "case-" + digest(file + " " + Files.getLastModifiedTime(file) + form) + ".csv");
            // Several languages ask for the same case at once, and none may find it being written anew.
            synchronized (LOCKS.computeIfAbsent(copy, _ -> new Object())) {
                if (!MADE.contains(copy) || !Files.isRegularFile(copy)) {
                    make(shelf, WebTable.ofFile(file, web), copy);
                }
            }
            return read(copy, file.toString());
        });
    }

    /// What makes a copy, or reads one.
    private interface Work {
        Outcome<SourceFile> run() throws IOException;
    }

    private static Outcome<SourceFile> kept(Path shelf, String what, Work work) {
        try {
            return work.run();
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    shelf.toString(),
                    "The copy of " + what + " cannot be kept: " + e.getMessage() + ".",
                    "Look at the rights of the folder .fixshelf of this shelf, and at the room on the disk."));
        }
    }

    /// The place outside of the shelf that would be read from, where it is not allowed yet.
    public static Optional<Consent.Place> asked(Path shelf, ReadOptions options) {
        return place(shelf, options).filter(p -> !Consent.isGiven(shelf, p));
    }

    /// The place outside of the shelf that would be read from.
    public static Optional<Consent.Place> place(Path shelf, ReadOptions options) {
        try {
            return options.form().orElse(null) instanceof ReadOptions.Form.Elsewhere form
                    ? Source.of(options, form).place()
                    : Consent.Place.of(shelf, shelf.resolve(options.path()).normalize());
        } catch (ProblemException | InvalidPathException e) {
            return Optional.empty();
        }
    }

    /// Sources that are read live are asked again when they are needed next.
    public static void forget() {
        MADE.clear();
    }

    /// One source is asked again when it is needed next, also where its copy would still be good.
    public static void forget(Path shelf, String name, ReadOptions options) {
        try {
            Path copy = file(shelf, name, options);
            MADE.remove(copy);
            STALE.add(copy);
        } catch (IOException e) {
            System.getLogger(Copies.class.getName()).log(System.Logger.Level.WARNING, "no folder for copies", e);
        }
    }

    /// When the copy of a dataset was made; empty where there is none.
    private static Optional<Instant> made(Path shelf, String name, ReadOptions options) {
        try {
            Path copy = file(shelf, name, options);
            return Files.isRegularFile(copy)
                    ? Optional.of(Files.getLastModifiedTime(copy).toInstant())
                    : Optional.empty();
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    /// Whatever changes what is read changes the name, so that no copy answers for another question.
    private static Path file(Path shelf, String name, ReadOptions options) throws IOException {
        String base = (name.isEmpty() ? "source" : name) + "-" + digest(options.path() + options.form());
        return OwnFolder.file(shelf, "copies", base + ".csv");
    }

    private static Outcome<SourceFile> copy(
            Path shelf, String name, ReadOptions options, ReadOptions.Form.Elsewhere form) throws IOException {
        Source source = Source.of(options, form);
        source.place().ifPresent(place -> Consent.want(shelf, place));
        Path copy = file(shelf, name, options);
        Optional<Instant> made = made(shelf, name, options);
        boolean asking = !HERE.isBound() || source.place().isEmpty();
        if (!asking && made.isEmpty()) {
            return Outcome.failed(Problem.about(
                    Code.NOT_READ_YET, name, source.shown() + " was not read yet.", "Look at it to read it."));
        }
        if (asking) {
            // Who asks for the same at the same time waits for it; nobody waits for another server.
            synchronized (LOCKS.computeIfAbsent(copy, _ -> new Object())) {
                Optional<Instant> now = made(shelf, name, options);
                boolean fresh = now.isPresent()
                        && !STALE.contains(copy)
                        && (isFresh(now.get(), form.keep()) || MADE.contains(copy));
                if (!fresh) {
                    make(shelf, source, copy);
                }
            }
        }
        SourceFile.Copied copied = new SourceFile.Copied(
                source.shown(),
                form instanceof ReadOptions.Form.Typed
                        ? Optional.empty()
                        : Optional.of(Files.getLastModifiedTime(copy).toInstant()));
        return read(copy, options.path()).map(f -> f.copyOf(copied));
    }

    private static Outcome<SourceFile> read(Path copy, String path) throws IOException {
        List<Type> types = types(copy);
        ReadOptions plain = ReadOptions.of(path);
        return SourceFile.open(copy, plain.withNullWords(List.of("")))
                .then(f -> f.columns().size() > 1
                        ? Outcome.of(f)
                        : SourceFile.open(copy, plain.withNullWords(List.of(String.valueOf(CopyWriter.MISSING)))))
                .map(f -> f.declaring(types));
    }

    /// Where the types stand that the source says of the columns of a copy.
    private static Path typesOf(Path copy) {
        return copy.resolveSibling(copy.getFileName() + ".types");
    }

    private static List<Type> types(Path copy) throws IOException {
        Path types = typesOf(copy);
        return Files.isRegularFile(types, LinkOption.NOFOLLOW_LINKS)
                ? Files.readAllLines(types).stream()
                        .map(t -> Type.parse(t).orElse(Type.TEXT))
                        .toList()
                : List.of();
    }

    private static void make(Path shelf, Source source, Path copy) throws IOException {
        Path next = Files.createTempFile(copy.getParent(), copy.getFileName().toString(), ".new");
        try {
            source.write(shelf, next);
            List<String> types = source.types().stream().map(Type::label).toList();
            if (types.isEmpty()) {
                Files.deleteIfExists(typesOf(copy));
            } else {
                Path said = typesOf(next);
                Files.write(said, types);
                Files.move(said, typesOf(copy), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            }
            Files.move(next, copy, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(next);
        }
        STALE.remove(copy);
        MADE.add(copy);
    }

    private static boolean isFresh(Instant made, Duration keep) {
        return !keep.isZero() && Duration.between(made, Instant.now()).compareTo(keep) < 0;
    }

    private static String digest(String text) {
        try {
            byte[] bytes = MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(bytes, 0, 6);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
