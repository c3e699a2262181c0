package fixshelf.desktop.workbench;

import fixshelf.check.CaseResult;
import fixshelf.check.Cases;
import fixshelf.check.PromiseResult;
import fixshelf.check.Promises;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.fetch.Copies;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.DatasetPages;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.FixPages;
import fixshelf.shelf.History;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Moves;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.Renames;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import fixshelf.shelf.TableFixPage;
import fixshelf.shelf.TableFixPages;
import fixshelf.work.Datasets;
import fixshelf.work.JobParity;
import fixshelf.work.ShelfProblems;
import fixshelf.work.TablePromiseResult;
import fixshelf.work.TablePromises;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Consumer;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;

/// The shelf that is open, with the drafts of its pages, and the results of its cases.
///
/// A draft is in force at once everywhere in the window, and on disk in the page's history; the page itself changes
/// when the user keeps it. All methods are called on the interface's thread.
public final class Workbench implements AutoCloseable {
    private final Background background;
    private final ObjectProperty<Shelf> shelf;
    private final ObjectProperty<List<CaseResult>> results = new SimpleObjectProperty<>(List.of());
    private final ObjectProperty<List<PromiseResult>> promises = new SimpleObjectProperty<>(List.of());
    private final ObjectProperty<Map<String, List<JobParity>>> tableResults = new SimpleObjectProperty<>(Map.of());
    private final ObjectProperty<List<TablePromiseResult>> tablePromises = new SimpleObjectProperty<>(List.of());
    private final ObjectProperty<List<Problem>> problems = new SimpleObjectProperty<>(List.of());
    private final Map<Path, History> histories = new HashMap<>();
    private final Map<Path, String> kept = new HashMap<>();
    private final Set<Path> changedElsewhere = new HashSet<>();
    /// The pages that are kept together with a page which has another name, as they follow it.
    private final Map<Path, Map<Path, String>> followers = new HashMap<>();
    private static final CheckedPages.Remembered<CaseResult> CASES = new CheckedPages.Remembered<>(
            (r, page) -> new CaseResult(page, r.index(), page.cases().get(r.index()), r.answer()));
    private final CheckedTables checkedTables = new CheckedTables();
    private final ShelfProblems looked = new ShelfProblems();
    private final CheckedPages<CaseResult> checkedCases = new CheckedPages<>(Optional.of(CASES));
    private final CheckedPages<PromiseResult> checkedPromises = new CheckedPages<>(Optional.empty());
    /// The pages whose promises are looked at.
    private final Set<Path> promisesWanted = new HashSet<>();

    private Workbench(Shelf opened, Background background) {
        this.background = background;
        shelf = new SimpleObjectProperty<>(opened);
        opened.fixes().forEach(f -> kept.put(f.file(), f.source().text()));
        opened.jobs().forEach(j -> kept.put(j.file(), j.source().text()));
        opened.tableFixes().forEach(t -> kept.put(t.file(), t.source().text()));
        Map<Path, String> files = Map.copyOf(kept);
        files.forEach((file, text) -> {
            History history = History.open(opened.root(), file, text);
            histories.put(file, history);
            put(file, history.current());
        });
    }

    public static Outcome<Workbench> open(Path root) {
        return open(root, new Background());
    }

    static Outcome<Workbench> open(Path root, Background background) {
        Moves.finishLeftBehind();
        Copies.forget();
        return ShelfReader.read(root.toAbsolutePath().normalize()).map(s -> new Workbench(s, background));
    }

    public Background background() {
        return background;
    }

    public ObjectProperty<Shelf> shelfProperty() {
        return shelf;
    }

    public Shelf shelf() {
        return shelf.get();
    }

    /// The results of all cases in DuckDB, by fix and case.
    public ObjectProperty<List<CaseResult>> resultsProperty() {
        return results;
    }

    /// What came of the promises of the fixes that were looked at.
    public ObjectProperty<List<PromiseResult>> promisesProperty() {
        return promises;
    }

    /// Promises of a fix are tried from now on, whenever it changes.
    public void wantPromises(FixPage page) {
        if (!page.promises().isEmpty() && promisesWanted.add(page.file())) {
            checkPromises(0);
        }
    }

    private void checkPromises(int waitMillis) {
        Shelf now = shelf();
        List<FixPage> wanted = now.fixes().stream()
                .filter(f -> promisesWanted.contains(f.file()))
                .toList();
        background.ask(
                new Request("promises", "checking promises", waitMillis),
                () -> checkedPromises.check(
                        now,
                        wanted,
                        (s, pages) -> Promises.run(s, pages, FixEngines.ALL.getFirst()),
                        PromiseResult::page),
                promises::set);
    }

    public ObjectProperty<List<Problem>> problemsProperty() {
        return problems;
    }

    public List<CaseResult> resultsOf(FixPage page) {
        return results.get().stream()
                .filter(r -> r.page().file().equals(page.file()))
                .toList();
    }

    public Optional<FixPage> fix(Path file) {
        return shelf().fixes().stream().filter(f -> f.file().equals(file)).findFirst();
    }

    public Optional<TableFixPage> table(Path file) {
        return shelf().tableFixes().stream().filter(t -> t.file().equals(file)).findFirst();
    }

    /// The results of the cases of table fixes, by the names of these.
    public ObjectProperty<Map<String, List<JobParity>>> tableResultsProperty() {
        return tableResults;
    }

    /// What came of the promises of the table fixes that were looked at.
    public ObjectProperty<List<TablePromiseResult>> tablePromisesProperty() {
        return tablePromises;
    }

    /// What came of the promises of a table fix as it stands now; nothing where they were not tried yet.
    public Optional<List<TablePromiseResult>> promisesOf(TableFixPage page) {
        List<TablePromiseResult> known =
                tablePromises.get().stream().filter(r -> r.page() == page).toList();
        return known.isEmpty() && !page.promises().isEmpty() ? Optional.empty() : Optional.of(known);
    }

    /// Has the promises of a table fix tried, where that was not done for it as it stands now.
    public void wantPromises(TableFixPage page) {
        if (promisesOf(page).isPresent()) {
            return;
        }
        Shelf now = shelf();
        background.ask(
                new Request("table promises", "trying promises", 600), () -> TablePromises.run(now, page), found -> {
                    List<TablePromiseResult> all = new ArrayList<>(found);
                    tablePromises.get().stream()
                            .filter(r -> !r.page().file().equals(page.file()))
                            .forEach(all::add);
                    tablePromises.set(all);
                });
    }

    public List<JobParity> resultsOf(TableFixPage page) {
        return tableResults.get().getOrDefault(page.name(), List.of());
    }

    public Optional<JobPage> job(Path file) {
        return shelf().jobs().stream().filter(j -> j.file().equals(file)).findFirst();
    }

    /// Whether a page has a draft that is not kept.
    public boolean isDraft(Path file) {
        History history = histories.get(file);
        return history != null && !history.current().equals(kept.get(file));
    }

    /// Gives a page another text.
    public void edit(Path file, String text) {
        histories
                .computeIfAbsent(file, f -> History.open(shelf().root(), f, text))
                .record(text);
        put(file, text);
    }

    private void put(Path file, String text) {
        String name = shelf().root().relativize(file).toString().replace('\\', '/');
        SourceText source = new SourceText(name, text);
        if (file.toString().endsWith(".fix.md") && TableFixPages.isTableFix(source)) {
            if (!table(file).map(t -> t.source().text().equals(text)).orElse(false)) {
                shelf.set(shelf().with(TableFixPages.read(file, source)));
            }
        } else if (file.toString().endsWith(".fix.md")) {
            if (!fix(file).map(f -> f.source().text().equals(text)).orElse(false)) {
                shelf.set(shelf().with(FixPages.read(file, source)));
            }
        } else if (!job(file).map(j -> j.source().text().equals(text)).orElse(false)) {
            shelf.set(shelf().with(JobPages.read(file, source)));
        }
    }

    /// Pages of fixes that were written onto the shelf.
    public void come(Map<Path, String> pages) {
        Shelf with = shelf();
        for (Map.Entry<Path, String> page : pages.entrySet()) {
            Path file = page.getKey();
            kept.put(file, page.getValue());
            SourceText source =
                    new SourceText(shelf().root().relativize(file).toString().replace('\\', '/'), page.getValue());
            with = TableFixPages.isTableFix(source)
                    ? with.with(TableFixPages.read(file, source))
                    : with.with(FixPages.read(file, source));
        }
        shelf.set(with);
    }

    /// A page of a dataset that was written.
    public void take(DatasetPage page) {
        shelf.set(shelf().with(page));
    }

    /// Keeps a file as a dataset of the shelf, under a name that is free; gives its name.
    public Outcome<String> keepDataset(String wanted, ReadOptions shape) {
        Path file = freeFile("datasets", wanted, ".yaml");
        String name = file.getFileName().toString().replace(".yaml", "");
        String text = shape.mayDeclare() ? DatasetPages.writeDeclared(name, shape) : DatasetPages.write(name, shape);
        return PageFiles.write(file, text).map(f -> {
            String shown = shelf().root().relativize(f).toString().replace('\\', '/');
            Shelf with = shelf().with(DatasetPages.read(
                    f, new SourceText(shown, text), shelf().settings().nullWords()));
            Leave.give(() -> Datasets.allow(with, name));
            shelf.set(with);
            return name;
        });
    }

    public void undo(Path file) {
        String before = nameOf(file);
        Optional.ofNullable(histories.get(file)).flatMap(History::undo).ifPresent(text -> put(file, text));
        // Pages that followed another name go back with it.
        Map<Path, String> followed = followers.getOrDefault(file, Map.of());
        if (!followed.isEmpty() && !nameOf(file).equals(before)) {
            followers.remove(file);
            followed.keySet().forEach(this::undo);
        }
    }

    private String nameOf(Path file) {
        return fix(file)
                .map(FixPage::name)
                .or(() -> table(file).map(TableFixPage::name))
                .orElse("");
    }

    public void redo(Path file) {
        Optional.ofNullable(histories.get(file)).flatMap(History::redo).ifPresent(text -> put(file, text));
    }

    public boolean canUndo(Path file) {
        return Optional.ofNullable(histories.get(file)).map(History::canUndo).orElse(false);
    }

    public boolean canRedo(Path file) {
        return Optional.ofNullable(histories.get(file)).map(History::canRedo).orElse(false);
    }

    /// Gives a fix, a table fix or a loader another name, here and on all pages that name it, as
    /// drafts, and tells what those are called. They are kept together with the page. A name that
    /// will not do is a problem, and nothing changes.
    public void rename(Path file, String now, Consumer<Outcome<List<String>>> done) {
        Shelf before = shelf();
        String old = nameOf(file);
        background.ask(
                Request.now("rename", "looking who names " + old),
                () -> Renames.of(before, Renames.Kind.FIX, old, now),
                texts -> done.accept(texts.map(t -> follow(file, t))));
    }

    /// Takes the new texts of a page with another name, and of those that follow it; gives the names of these.
    private List<String> follow(Path file, Map<Path, String> texts) {
        List<String> others = new ArrayList<>();
        texts.forEach((page, text) -> {
            if (!page.equals(file)) {
                others.add(page.getFileName().toString().replaceFirst("\\..*", ""));
                followers.computeIfAbsent(file, _ -> new TreeMap<>()).put(page, text);
            }
            // Datasets have no drafts.
            if (shelf().datasets().stream().noneMatch(d -> d.file().equals(page))) {
                edit(page, text);
            }
        });
        return others.stream().sorted().toList();
    }

    /// Writes the draft of a page into the page, and the pages that go with another name of it;
    /// refused when one of them is another one on disk than it was here.
    public Outcome<Path> keep(Path file) {
        Map<Path, String> texts = new LinkedHashMap<>();
        texts.put(file, histories.get(file).current());
        followers
                .getOrDefault(file, Map.of())
                .forEach((page, text) -> texts.put(
                        page,
                        Optional.ofNullable(histories.get(page))
                                .map(History::current)
                                .orElse(text)));
        for (Map.Entry<Path, String> page : texts.entrySet()) {
            Optional<Problem> refused = elsewhere(page.getKey(), page.getValue());
            if (refused.isPresent()) {
                return Outcome.failed(refused.get());
            }
        }
        Outcome<List<Path>> written = PageFiles.write(texts);
        if (written.isPresent()) {
            followers.remove(file);
            texts.forEach(this::taken);
        }
        return written.map(_ -> file);
    }

    /// Why a page must not be written: it is another one on disk than it was here.
    private Optional<Problem> elsewhere(Path file, String text) {
        Outcome<Optional<String>> onDisk = onDisk(file);
        if (!onDisk.isPresent()) {
            return onDisk.problems().stream().findFirst();
        }
        boolean dataset = !kept.containsKey(file) && !histories.containsKey(file);
        boolean other = !dataset
                && onDisk.get()
                        .filter(t -> !t.equals(text) && !t.equals(kept.get(file)))
                        .isPresent();
        if (!other) {
            changedElsewhere.remove(file);
            return Optional.empty();
        }
        changedElsewhere.add(file);
        return Optional.of(Problem.about(
                Code.DIVERGED,
                shelf().root().relativize(file).toString(),
                "Another program has changed this page since it was read here, so it was not written.",
                "Read it again; what you wrote here is one undo away then."));
    }

    private void taken(Path file, String text) {
        if (shelf().datasets().stream().anyMatch(d -> d.file().equals(file))) {
            String name = shelf().root().relativize(file).toString().replace('\\', '/');
            take(DatasetPages.read(
                    file, new SourceText(name, text), shelf().settings().nullWords()));
            return;
        }
        kept.put(file, text);
        fix(file).ifPresent(f -> shelf.set(shelf().with(f)));
        job(file).ifPresent(j -> shelf.set(shelf().with(j)));
        table(file).ifPresent(t -> shelf.set(shelf().with(t)));
    }

    /// The page as it is on disk; empty when it is not there.
    private static Outcome<Optional<String>> onDisk(Path file) {
        try {
            return Outcome.of(Files.exists(file) ? Optional.of(Files.readString(file)) : Optional.empty());
        } catch (IOException e) {
            return Outcome.failed(Problem.about(
                    Code.UNREADABLE_PAGE,
                    file.toString(),
                    "The page on disk cannot be read: " + e.getMessage() + ". It is as it was.",
                    "Look at the file and its rights."));
        }
    }

    /// Whether keeping a page was refused because it is another one on disk.
    public boolean isChangedElsewhere(Path file) {
        return changedElsewhere.contains(file);
    }

    /// Takes a page as it is on disk; what was written here stays in its history.
    public Outcome<Path> readAgain(Path file) {
        return onDisk(file).map(onDisk -> {
            changedElsewhere.remove(file);
            onDisk.ifPresent(text -> {
                kept.put(file, text);
                edit(file, text);
            });
            return file;
        });
    }

    /// A file name that no page has yet, for a new page of that name.
    public Path freeFile(String folder, String name, String ending) {
        Path file = shelf().root().resolve(folder).resolve(name + ending);
        for (int n = 2; Files.exists(file) || histories.containsKey(file); n++) {
            file = shelf().root().resolve(folder).resolve(name + "_" + n + ending);
        }
        return file;
    }

    /// Runs the cases and promises of what changed, when no newer change comes within a moment.
    public void check(int waitMillis) {
        Shelf now = shelf();
        FixEngine duckdb = FixEngines.ALL.getFirst();
        background.ask(
                new Request("cases", "running the cases", waitMillis),
                () -> checkedCases.check(now, now.fixes(), (s, pages) -> Cases.run(s, pages, duckdb), CaseResult::page),
                results::set);
        background.ask(
                new Request("problems", "looking at all lines", waitMillis),
                () -> looked.find(now).problems(),
                problems::set);
        background.ask(
                new Request("tables", "running the cases of table fixes", waitMillis),
                () -> checkedTables.check(now, duckdb),
                tableResults::set);
        checkPromises(waitMillis * 3);
    }

    @Override
    public void close() {
        background.close();
    }
}
