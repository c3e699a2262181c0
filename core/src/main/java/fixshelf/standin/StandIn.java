package fixshelf.standin;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.profile.DataLook;
import fixshelf.profile.RowFilter;
import fixshelf.shelf.DatasetPages;
import fixshelf.shelf.Moves;
import fixshelf.shelf.Shelf;
import fixshelf.source.CarefulRows;
import fixshelf.source.SourceFile;
import fixshelf.type.Column;
import fixshelf.work.Datasets;
import fixshelf.work.OutputPlace;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CodingErrorAction;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// Makes stand-ins of datasets: for each a file whose rows are made up, and a page that reads it.
///
/// A file of delimited text is written as it is read: with its separator, quotes, encoding and words for what is
/// missing. What is in any other kind of source becomes delimited text, as all of it is read as texts anyway.
public final class StandIn {
    private static final int SECRET_BYTES = 32;
    private static final int MOST_NAMED = 12;

    private final Shelf shelf;
    private final List<Staged> datasets;
    private final Substitutes substitutes;
    private final Wanted wanted;

    /// What is asked for.
    ///
    /// @param kept words that may stay, of those that many rows share
    /// @param folder where the files go
    /// @param replace whether files of an earlier stand-in may be replaced
    public record Wanted(List<SharedWord> kept, Path folder, boolean replace) {
        public Wanted {
            kept = List.copyOf(kept);
            folder = folder.toAbsolutePath().normalize();
        }
    }

    /// What was made.
    ///
    /// @param rows how many rows they have together
    /// @param notes what is to be known before they are sent
    public record Made(List<Written> files, long rows, List<String> notes) {
        public Made {
            files = List.copyOf(files);
            notes = List.copyOf(notes);
        }
    }

    /// The stand-in of a dataset.
    ///
    /// @param page what reads it, beside it
    /// @param options how it is read
    /// @param types its columns as jobs find them, where they are not all texts
    public record Written(String dataset, Path file, Path page, ReadOptions options, List<Column> types) {
        public Written {
            types = List.copyOf(types);
        }
    }

    private StandIn(Shelf shelf, List<Staged> datasets, Wanted wanted, byte[] secret) {
        this.shelf = shelf;
        this.datasets = datasets;
        this.wanted = wanted;
        List<CharsetEncoder> encoders = datasets.stream()
                .map(d -> written(d.look().file()).charset().newEncoder())
                .toList();
        this.substitutes = new Substitutes(
                secret, texts(wanted.kept()), c -> encoders.stream().allMatch(e -> e.canEncode(Character.toString(c))));
    }

    private static Set<String> texts(List<SharedWord> words) {
        return words.stream().map(SharedWord::text).collect(Collectors.toSet());
    }

    private static byte[] secret() {
        byte[] secret = new byte[SECRET_BYTES];
        new SecureRandom().nextBytes(secret);
        return secret;
    }

    /// Makes stand-ins of datasets, so that what stands in several of them is the same in all.
    public static Outcome<Made> make(Shelf shelf, List<Staged> datasets, Wanted wanted) {
        return new StandIn(shelf, datasets, wanted, secret()).write();
    }

    /// What the first rows would become, for example: another secret chooses other letters.
    ///
    /// @param rows how many
    public static Outcome<List<List<@Nullable String>>> example(DataLook look, List<SharedWord> kept, int rows) {
        Substitutes substitutes = new Substitutes(secret(), texts(kept), _ -> true);
        return look.rows(RowFilter.ALL, 0, rows).map(seen -> {
            seen.forEach(r -> r.cells().stream().filter(Objects::nonNull).forEach(substitutes::learn));
            substitutes.settle();
            return seen.stream().map(r -> substituted(r.cells(), substitutes)).toList();
        });
    }

    /// How the stand-in of a file is read.
    private static ReadOptions written(SourceFile file) {
        ReadOptions options = file.options();
        boolean delimited = file.isDelimited() && file.copied().isEmpty();
        ReadOptions plain = delimited ? options : ReadOptions.of("");
        return plain.withLeaveOutBadRows(false);
    }

    /// The name of the file that stands in for a dataset.
    private static String fileName(String dataset, SourceFile file) {
        String name = file.file().getFileName().toString().replaceFirst("\\.gz$", "");
        int point = name.lastIndexOf('.');
        return dataset + (file.isDelimited() && file.copied().isEmpty() && point > 0 ? name.substring(point) : ".csv");
    }

    private Outcome<Made> write() {
        Path folder = wanted.folder();
        List<Written> all = new ArrayList<>();
        for (Staged dataset : datasets) {
            SourceFile file = dataset.look().file();
            Path to = folder.resolve(fileName(dataset.name(), file));
            all.add(new Written(
                    dataset.name(),
                    to,
                    folder.resolve(dataset.name() + ".yaml"),
                    written(file).withPath(to.getFileName().toString()),
                    Datasets.typed(shelf, dataset.name())));
        }
        Optional<Problem> wrong = all.stream()
                .flatMap(w -> Stream.of(w.file(), w.page()))
                .flatMap(f -> objection(f).stream())
                .findFirst()
                .or(this::learn);
        if (wrong.isPresent()) {
            return Outcome.failed(wrong.get());
        }
        List<Moves.Move> moves = new ArrayList<>();
        try {
            Files.createDirectories(folder);
            long rows = 0;
            for (int i = 0; i < all.size(); i++) {
                Path file = part(folder, all.get(i).file(), moves);
                Path page = part(folder, all.get(i).page(), moves);
                Outcome<Long> wrote = write(datasets.get(i).look(), file);
                if (!wrote.isPresent()) {
                    return Outcome.failed(wrote.problems());
                }
                rows += wrote.get();
                Written one = all.get(i);
                Files.writeString(page, DatasetPages.write(one.dataset(), one.options(), one.types()));
            }
            Moves.together(moves);
            return Outcome.of(new Made(all, rows, notes()));
        } catch (IOException | UncheckedIOException e) {
            return Outcome.failed(Problem.about(
                    Code.TARGET_NOT_WRITABLE,
                    folder.toString(),
                    "It cannot be written to " + folder + ": " + e.getMessage() + ".",
                    "Choose another folder."));
        } finally {
            moves.forEach(m -> removed(m.part()));
        }
    }

    private static Path part(Path folder, Path target, List<Moves.Move> moves) throws IOException {
        Path part = Files.createTempFile(folder, ".stand-in", ".new");
        moves.add(new Moves.Move(part, target));
        // Made anew with the rights that a file of this user has.
        Files.delete(part);
        return part;
    }

    private static void removed(Path part) {
        try {
            Files.deleteIfExists(part);
        } catch (IOException e) {
            System.getLogger(StandIn.class.getName()).log(System.Logger.Level.DEBUG, "left behind: " + part, e);
        }
    }

    /// Nothing that is read is written over, and nothing that is there unless the user says so.
    private Optional<Problem> objection(Path file) {
        Optional<Problem> ofShelf = OutputPlace.ofShelf(shelf, file);
        if (ofShelf.isPresent()) {
            return ofShelf;
        }
        boolean there = Files.exists(file, LinkOption.NOFOLLOW_LINKS);
        boolean plain = Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS);
        return there && !(plain && wanted.replace())
                ? Optional.of(Problem.about(
                        Code.TARGET_EXISTS,
                        file.toString(),
                        "There is something at " + file + " already.",
                        plain ? "Choose another folder, or let it be replaced (--replace)." : "Choose another folder."))
                : Optional.empty();
    }

    /// Takes all values, and finds others for them; what is wrong where that cannot be.
    private Optional<Problem> learn() {
        for (Staged dataset : datasets) {
            DataLook look = dataset.look();
            Outcome<Integer> learned = DataLook.guarded(() -> {
                int columns = look.file().columns().size();
                for (int i = 0; i < columns; i++) {
                    look.eachValue(i, (value, _) -> substitutes.learn(value));
                }
                return columns;
            });
            if (!learned.isPresent()) {
                return learned.problems().stream().findFirst();
            }
        }
        substitutes.settle();
        return Optional.empty();
    }

    private Outcome<Long> write(DataLook look, Path part) throws IOException {
        ReadOptions options = written(look.file());
        CharsetEncoder encoder = options.charset()
                .newEncoder()
                .onMalformedInput(CodingErrorAction.REPLACE)
                .onUnmappableCharacter(CodingErrorAction.REPLACE);
        try (BufferedWriter out = new BufferedWriter(new OutputStreamWriter(Files.newOutputStream(part), encoder))) {
            DelimitedRows rows = new DelimitedRows(out, options);
            if (options.heading()) {
                rows.heading(look.file().columns().stream().map(Column::name).toList());
            }
            return DataLook.guarded(() -> {
                look.eachRow(row -> rows.write(substituted(row, substitutes)));
                return look.rows();
            });
        }
    }

    private static List<@Nullable String> substituted(List<? extends @Nullable Object> row, Substitutes substitutes) {
        List<@Nullable String> made = new ArrayList<>(row.size());
        for (Object cell : row) {
            made.add(cell instanceof String value ? substitutes.of(value) : null);
        }
        return made;
    }

    /// What its user should know before it is sent.
    private List<String> notes() {
        List<String> notes = new ArrayList<>();
        notes.add("The names of the columns are as they were, and so are zeros, blanks and values of marks alone.");
        Set<String> kept = texts(wanted.kept());
        if (!kept.isEmpty()) {
            notes.add("Kept, as agreed: "
                    + (kept.size() > MOST_NAMED
                            ? kept.size() + " words."
                            : kept.stream().sorted().collect(Collectors.joining(", ")) + "."));
        }
        if (substitutes.years() > 0) {
            notes.add("Days are " + substitutes.years() + " years earlier; day, month and time are as they were.");
        }
        if (substitutes.movedPlaces() > 0) {
            notes.add(String.format(
                    "%,d values have no other of their layout, and took each other's place: they are values that there were,"
                            + " in other rows.",
                    substitutes.movedPlaces()));
        }
        if (substitutes.stay() > 0) {
            notes.add(String.format(
                    substitutes.stay() == 1
                            ? "%,d value is the only one of its layout, and stays as it is."
                            : "%,d values are the only ones of their layout, and stay as they are.",
                    substitutes.stay()));
        }
        long left = datasets.stream()
                .mapToLong(d -> d.look().careful().map(CarefulRows::badCount).orElse(0L))
                .sum();
        if (left > 0) {
            notes.add(String.format(
                    left == 1 ? "%,d row that does not fit is not in it." : "%,d rows that do not fit are not in it.",
                    left));
        }
        return notes;
    }
}
