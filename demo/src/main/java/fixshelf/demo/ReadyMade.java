package fixshelf.demo;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.FixPages;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.shelf.TableFixPages;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// The fixes that are ready to be taken onto any shelf: those of the demo that everybody needs, with their
/// documentation and their cases. What is taken belongs to the shelf, and is changed like any other page.
public final class ReadyMade {
    private static final Pattern WORD = Pattern.compile("[a-z_][a-z0-9_]*");

    private ReadyMade() {}

    /// A fix that can be taken.
    ///
    /// @param place of its page, from the shelf's folder
    /// @param about its first sentence
    public record Fix(String name, String place, String about, String text) {
        /// What it is for: the folder that it stands in.
        public String group() {
            return place.split("/")[1];
        }
    }

    /// What came of taking.
    ///
    /// @param written the names of those that are new on the shelf
    /// @param there the names of those that the shelf had, which stay as they are
    public record Taken(List<String> written, List<String> there) {
        public Taken {
            written = List.copyOf(written);
            there = List.copyOf(there);
        }
    }

    /// All of them, by what they are for.
    public static List<Fix> all() {
        return read("ready-made.txt").lines().map(ReadyMade::fix).toList();
    }

    /// How many there are.
    public static int count() {
        return (int) read("ready-made.txt").lines().count();
    }

    private static Fix fix(String place) {
        String text = read(place);
        SourceText source = new SourceText(place, text);
        Path file = Path.of(place);
        if (TableFixPages.isTableFix(source)) {
            TableFixPage page = TableFixPages.read(file, source);
            return new Fix(page.name(), place, page.summary(), text);
        }
        FixPage page = FixPages.read(file, source);
        return new Fix(page.name(), place, page.summary(), text);
    }

    private static String read(String resource) {
        try (InputStream in = Objects.requireNonNull(ReadyMade.class.getResourceAsStream(resource), resource)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /// Writes the pages of these fixes, and of those that they call, onto a shelf: all of them, or none. A fix that the
    /// shelf has stays as it is. A name that is none of them is a problem.
    public static Outcome<Taken> take(Shelf shelf, Collection<String> names) {
        Map<String, Fix> known = new LinkedHashMap<>();
        all().forEach(f -> known.put(f.name(), f));
        for (String name : names) {
            if (!known.containsKey(name.toLowerCase(Locale.ROOT))) {
                return Outcome.failed(Problem.about(
                        Code.NO_SUCH,
                        name,
                        "There is no ready-made fix " + name + ".",
                        fixshelf.language.tree.Names.suggest(name, known.keySet(), "`fixshelf take` lists them.")));
            }
        }
        Set<String> had = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        shelf.fixes().forEach(f -> had.add(f.name()));
        shelf.tableFixes().forEach(f -> had.add(f.name()));
        Map<Path, String> pages = new LinkedHashMap<>();
        List<String> written = new ArrayList<>();
        List<String> there = new ArrayList<>();
        for (Fix fix : withCalled(names, known)) {
            Path file = shelf.root().resolve(fix.place());
            if (had.contains(fix.name()) || Files.exists(file)) {
                there.add(fix.name());
            } else {
                written.add(fix.name());
                pages.put(file, fix.text());
            }
        }
        Taken taken = new Taken(written, there);
        return pages.isEmpty() ? Outcome.of(taken) : PageFiles.write(pages).map(_ -> taken);
    }

    /// As [#take], of all that there are.
    public static Outcome<Taken> takeAll(Shelf shelf) {
        return take(shelf, all().stream().map(Fix::name).toList());
    }

    /// The fixes of these names, and all that they call.
    private static List<Fix> withCalled(Collection<String> names, Map<String, Fix> known) {
        Set<Fix> all = new LinkedHashSet<>();
        Deque<String> waiting = new ArrayDeque<>(names);
        while (!waiting.isEmpty()) {
            Fix fix = known.get(waiting.remove().toLowerCase(Locale.ROOT));
            if (fix != null && all.add(fix)) {
                called(fix).stream().filter(known::containsKey).forEach(waiting::add);
            }
        }
        return List.copyOf(all);
    }

    /// The words of its code, of which some are names of fixes.
    private static Set<String> called(Fix fix) {
        Set<String> words = new LinkedHashSet<>();
        Matcher code = Pattern.compile("(?s)```(?:sql|yaml)\\n(.*?)```").matcher(fix.text());
        while (code.find()) {
            WORD.matcher(code.group(1)).results().forEach(w -> words.add(w.group()));
        }
        Matcher promised = Pattern.compile("(?m)^promises:(.*)$").matcher(fix.text());
        while (promised.find()) {
            WORD.matcher(promised.group(1)).results().forEach(w -> words.add(w.group()));
        }
        return words;
    }
}
