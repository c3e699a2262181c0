package fixshelf.shelf;

import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.Names;
import fixshelf.operations.Operations;
import fixshelf.plan.Line;
import fixshelf.plan.Written;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Another name for a fix, a table fix, a loader, a dataset or a job, on its own page and on every
/// page that names it. What a text in quotes says is left alone, and so is a line of a job that has
/// the name.
///
/// The shelf is read again with the changed pages before anything is written: where that would make
/// a problem, nothing is.
public final class Renames {
    /// The field of promises in front, to the next field.
    private static final Pattern PROMISES = Pattern.compile("(?m)^promises:.*(?:\\R[ -].*)*");

    private final Shelf shelf;
    private final Kind kind;
    private final String old;
    private final String now;
    private final Map<Path, String> texts = new LinkedHashMap<>();

    /// What has the name.
    public enum Kind {
        /// A value fix, a table fix or a loader: they are called.
        FIX,
        DATASET,
        JOB
    }

    private Renames(Shelf shelf, Kind kind, String old, String now) {
        this.shelf = shelf;
        this.kind = kind;
        this.old = old;
        this.now = now;
    }

    /// What has a name on a shelf; several where a fix and a table have it.
    public static List<Kind> kinds(Shelf shelf, String name) {
        return List.of(Kind.values()).stream()
                .filter(k -> switch (k) {
                    case FIX -> shelf.fix(name).isPresent() || page(shelf, name).isPresent();
                    case DATASET -> shelf.dataset(name).isPresent();
                    case JOB -> shelf.job(name).isPresent();
                })
                .toList();
    }

    private static Optional<TableFixPage> page(Shelf shelf, String name) {
        return shelf.tableFixes().stream()
                .filter(t -> t.name().equalsIgnoreCase(name))
                .findFirst();
    }

    /// The new texts of all pages that change, the page itself first; a name that is taken, or will
    /// not do, is a problem.
    public static Outcome<Map<Path, String>> of(Shelf shelf, Kind kind, String old, String now) {
        Optional<Problem> refused = objection(shelf, kind, old, now);
        if (refused.isPresent()) {
            return Outcome.failed(refused.get());
        }
        Renames renames = new Renames(shelf, kind, old, now);
        renames.ownPage();
        renames.callers();
        return renames.proven();
    }

    /// The new texts of the other pages that name it, where its own page has the new name already.
    public static Map<Path, String> callers(Shelf shelf, Kind kind, String old, String now) {
        Renames renames = new Renames(shelf, kind, old, now);
        renames.callers();
        return renames.texts;
    }

    private static Optional<Problem> objection(Shelf shelf, Kind kind, String old, String now) {
        Optional<String> wrong = Names.problemWith(now);
        if (wrong.isPresent()) {
            return Optional.of(Problem.about(Code.BAD_FIELD, now, wrong.get(), "Write tidy_name, say."));
        }
        boolean other = !old.equalsIgnoreCase(now);
        boolean taken = other
                && switch (kind) {
                    case FIX ->
                        !kinds(shelf, now).stream()
                                        .filter(k -> k == Kind.FIX)
                                        .toList()
                                        .isEmpty()
                                || Operations.find(now).isPresent()
                                || Functions.find(now).isPresent();
                    case DATASET, JOB ->
                        shelf.dataset(now).isPresent() || shelf.job(now).isPresent();
                };
        return taken
                ? Optional.of(Problem.about(
                        Code.DUPLICATE_NAME,
                        now,
                        "There is something called " + now + " already.",
                        "Choose another name; nothing was changed."))
                : Optional.empty();
    }

    private void ownPage() {
        switch (kind) {
            case FIX -> {
                shelf.fix(old).ifPresent(f -> texts.put(f.file(), FixEdits.setField(f, "fix", now)));
                page(shelf, old).ifPresent(t -> texts.put(t.file(), TableFixEdits.setField(t, "fix", now)));
            }
            case DATASET ->
                shelf.dataset(old)
                        .ifPresent(d -> texts.put(
                                d.file(), FrontEdits.setTopField(d.source().text(), "dataset", now)));
            case JOB ->
                shelf.job(old)
                        .ifPresent(j -> texts.put(
                                j.file(), FrontEdits.setTopField(j.source().text(), "job", now)));
        }
    }

    private void callers() {
        Set<String> users = new HashSet<>(shelf.usersOf(old));
        shelf.fixes().stream()
                .filter(f -> users.contains(f.name()))
                .forEach(f -> changed(f.file(), f.source().text(), inFix(f)));
        shelf.tableFixes().stream()
                .filter(t -> users.contains(t.name()))
                .forEach(t -> changed(t.file(), t.source().text(), inTableFix(t)));
        shelf.datasets().stream()
                .filter(d -> users.contains(d.name()))
                .forEach(d -> changed(d.file(), d.source().text(), inDataset(d)));
        shelf.jobs().stream()
                .filter(j -> users.contains(j.name()))
                .forEach(j -> changed(j.file(), j.source().text(), inLines(j, JobPages::read)));
    }

    /// A page that changes twice keeps the first change: its own name.
    private void changed(Path file, String before, String after) {
        if (!before.equals(after) && !texts.containsKey(file)) {
            texts.put(file, after);
        }
    }

    /// Calls in the body, and promises that name it.
    private String inFix(FixPage page) {
        if (kind != Kind.FIX) {
            return page.source().text();
        }
        String body = calls(page.bodyText());
        FixPage later = body.equals(page.bodyText())
                ? page
                : FixPages.read(page.file(), new SourceText(page.source().name(), FixEdits.setBody(page, body)));
        return promises(later);
    }

    /// The promises of a page that name it, in the field of promises.
    private String promises(FixPage page) {
        String text = page.source().text();
        Matcher field = PROMISES.matcher(text);
        if (!field.find()) {
            return text;
        }
        String said = field.group();
        for (Promise promise : page.promises()) {
            if (promise.fix().equalsIgnoreCase(old)) {
                said = said.replace(promise.written(), promise.kind().word() + " " + now);
            }
        }
        return text.substring(0, field.start()) + said + text.substring(field.end());
    }

    private String inTableFix(TableFixPage page) {
        return inLines(
                TableFixEdits.asLines(page), (file, source) -> TableFixEdits.asLines(TableFixPages.read(file, source)));
    }

    private String inDataset(DatasetPage page) {
        String text = page.source().text();
        boolean loads =
                page.call().filter(c -> c.loader().equalsIgnoreCase(old)).isPresent();
        boolean each = page.call()
                .flatMap(DatasetPage.Call::each)
                .filter(e -> e.table().equalsIgnoreCase(old))
                .isPresent();
        if (kind == Kind.FIX && loads) {
            return FrontEdits.setTopField(text, "load", now);
        }
        return kind != Kind.FIX && each ? FrontEdits.setTopField(text, "for_each", now) : text;
    }

    /// Reads a page of lines again.
    private interface Reader {
        JobPage read(Path file, SourceText source);
    }

    private String inLines(JobPage page, Reader reader) {
        JobPage current = page;
        boolean shadowed = page.lines().stream().anyMatch(l -> l.line().name().equalsIgnoreCase(old));
        for (int i = 0; i < page.lines().size(); i++) {
            Line line = current.lines().get(i).line();
            Line other = inLine(line, shadowed);
            if (!other.equals(line)) {
                JobPage before = current;
                int index = i;
                String text = otherCall(current, i, other).orElseGet(() -> JobEdits.replaceLine(before, index, other));
                current = reader.read(page.file(), new SourceText(page.source().name(), text));
            }
        }
        return current.source().text();
    }

    /// The page with another name in one place, where nothing else about a line changes: all other signs stay.
    private Optional<String> otherCall(JobPage page, int index, Line other) {
        JobPage.PlacedLine placed = page.lines().get(index);
        Line line = placed.line();
        if (!new Line(other.call(), line.blanks(), line.name(), line.strict(), line.rest()).equals(other)) {
            return Optional.empty();
        }
        String text = page.source().text();
        Span span = placed.span();
        String name = Pattern.quote(line.call());
        Matcher call = Pattern.compile("(?im)(^|[\\s{,])(fix:[ ]*[\"']?" + name + "|[\"']?" + name + "(?=[\"']?[ ]*:))")
                .matcher(text.substring(span.start(), span.end()));
        List<Integer> ends = call.results().map(MatchResult::end).toList();
        if (ends.size() != 1) {
            return Optional.empty();
        }
        int end = span.start() + ends.getFirst();
        return Optional.of(text.substring(0, end - line.call().length()) + other.call() + text.substring(end));
    }

    private Line inLine(Line line, boolean shadowed) {
        String call = kind == Kind.FIX && line.call().equalsIgnoreCase(old) ? now : line.call();
        Map<String, Written> blanks = new LinkedHashMap<>();
        line.blanks().forEach((blank, written) -> blanks.put(blank, inBlank(line, blank, written, shadowed)));
        return new Line(call, blanks, line.name(), line.strict(), line.rest());
    }

    private Written inBlank(Line line, String blank, Written written, boolean shadowed) {
        if (written instanceof Written.Word(String text) && text.equalsIgnoreCase(old)) {
            boolean named = kind == Kind.FIX ? Uses.namesFix(blank) : !shadowed && Uses.namesTable(line, blank);
            return named ? Written.word(now) : written;
        }
        return inside(written);
    }

    private Written inside(Written written) {
        return switch (written) {
            case Written.Word(String text) -> kind == Kind.FIX ? Written.word(calls(text)) : written;
            case Written.Items(List<Written> items) ->
                new Written.Items(items.stream().map(this::inside).toList());
            case Written.Fields(Map<String, Written> fields) -> {
                Map<String, Written> all = new LinkedHashMap<>();
                fields.forEach((name, value) -> all.put(
                        name,
                        kind != Kind.FIX
                                        && name.equals("in")
                                        && value instanceof Written.Word(String text)
                                        && text.equalsIgnoreCase(old)
                                ? Written.word(now)
                                : inside(value)));
                yield new Written.Fields(all);
            }
        };
    }

    /// The same code with calls of the other name.
    private String calls(String code) {
        StringBuilder out = new StringBuilder();
        int from = 0;
        for (Span call : Uses.calls(code, old)) {
            out.append(code, from, call.start()).append(now);
            from = call.end();
        }
        return out.append(code.substring(from)).toString();
    }

    /// The pages, if the shelf has no problem with them that it did not have before, and names the old one nowhere.
    private Outcome<Map<Path, String>> proven() {
        Shelf changed = shelf;
        for (Map.Entry<Path, String> page : texts.entrySet()) {
            changed = with(changed, page.getKey(), page.getValue());
        }
        Set<String> before = new HashSet<>();
        shelf.problems().forEach(p -> before.add(p.what()));
        Optional<Problem> worse = changed.problems().stream()
                .filter(Problem::isError)
                .filter(p -> !before.contains(p.what()))
                .findFirst();
        return worse.isPresent() ? Outcome.failed(worse.get()) : Outcome.of(Map.copyOf(texts));
    }

    private static Shelf with(Shelf shelf, Path file, String text) {
        SourceText source =
                new SourceText(shelf.root().relativize(file).toString().replace('\\', '/'), text);
        String folder = source.name().toLowerCase(Locale.ROOT);
        if (folder.startsWith("datasets/")) {
            return shelf.with(DatasetPages.read(file, source, shelf.settings().nullWords()));
        }
        if (folder.startsWith("jobs/")) {
            return shelf.with(JobPages.read(file, source));
        }
        return shelf.tableFixes().stream().anyMatch(t -> t.file().equals(file))
                ? shelf.with(TableFixPages.read(file, source))
                : shelf.with(FixPages.read(file, source));
    }
}
