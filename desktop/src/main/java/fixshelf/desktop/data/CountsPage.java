package fixshelf.desktop.data;

import fixshelf.desktop.parts.ChoiceBlank;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Ui;
import fixshelf.problem.Outcome;
import fixshelf.profile.CountSpec;
import fixshelf.profile.CountTable;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.TextFlow;
import org.jspecify.annotations.Nullable;

/// Counts of one, two or three columns, said as a sentence with blanks.
public final class CountsPage {
    private static final int MOST_CELLS = 6_000;

    private final Asking asking;
    private final TextFlow sentence = new TextFlow();
    private final VBox tables = new VBox(8);
    private final Label told = Ui.wrapped("", "soft");
    private final VBox view;
    private List<String> columns = List.of();
    private @Nullable CountSpec spec;
    private @Nullable CountTable shown;

    private List<DataModel.WordList> lists = List.of();
    private String listed = "";

    /// What the page asks for.
    interface Asking {
        /// Counts anew.
        void count(CountSpec spec);

        /// Writes the numbers into a file.
        void saveNumbers();

        /// Keeps the counts in the page of the dataset.
        void keep();

        /// Reads a list of words.
        void words(DataModel.WordList list, Consumer<Outcome<Map<String, String>>> done);
    }

    CountsPage(Asking asking) {
        this.asking = asking;
        sentence.getStyleClass().add("count-sentence");
        view = new VBox(6, sentence, Ui.page(tables), buttons(), told);
        told.managedProperty().bind(told.textProperty().isNotEmpty());
        VBox.setVgrow(view.getChildren().get(1), javafx.scene.layout.Priority.ALWAYS);
        VBox.setVgrow(view, javafx.scene.layout.Priority.ALWAYS);
    }

    private FlowPane buttons() {
        FlowPane row = new FlowPane(
                10,
                8,
                Ui.button(Command.of("Copy as it stands", "Shortcut+Shift+C", () -> copy(true)), "strong"),
                Ui.button(Command.of("Copy the numbers", "", () -> copy(false))),
                Ui.button(Command.of("Save the numbers …", "", asking::saveNumbers)),
                Ui.button(Command.of("Keep as a check", "Shortcut+Shift+K", asking::keep)));
        row.getStyleClass().add("count-buttons");
        return row;
    }

    VBox view() {
        return view;
    }

    Node focusTarget() {
        return ChoiceBlank.first(sentence);
    }

    /// Shows the columns of another dataset, and counts the one that is likeliest to be worth it.
    void show(List<String> names, int likely) {
        if (!names.equals(columns) || spec == null) {
            columns = names;
            tell("", false);
            shown = null;
            tables.getChildren().clear();
            spec = names.isEmpty() ? null : CountSpec.of(List.of(likely));
        }
        if (spec != null) {
            fill();
            asking.count(spec);
        } else {
            sentence.getChildren().setAll(Ui.sentence("There is no column to count."));
        }
    }

    /// Offers other words for values.
    void offer(List<DataModel.WordList> found) {
        lists = found;
        if (spec != null) {
            fill();
        }
    }

    /// Counts these columns.
    public void count(List<Integer> places) {
        change(CountSpec.of(places));
    }

    /// Says what became of keeping the counts.
    void tell(String words, boolean wrong) {
        told.setText(words);
        Ui.mark(told, "problem", wrong);
    }

    private void change(CountSpec now) {
        spec = now;
        tell("", false);
        fill();
        asking.count(now);
    }

    private void fill() {
        CountSpec now = java.util.Objects.requireNonNull(spec);
        List<Integer> at = now.columns();
        List<Node> words = new ArrayList<>();
        words.add(Ui.sentence("Count "));
        words.add(choice("count-first", columns.get(at.get(0)), names(false), i -> {
            List<Integer> places = new ArrayList<>(at);
            places.set(0, i);
            return now.withColumns(places).withLabels(Map.of());
        }));
        words.add(Ui.sentence(" by "));
        words.add(choice(
                "count-by", at.size() > 1 ? columns.get(at.get(1)) : "nothing", names(true), i -> by(now, i - 1)));
        if (at.size() > 1) {
            words.add(Ui.sentence(", apart for each "));
            words.add(choice(
                    "count-each",
                    at.size() > 2 ? columns.get(at.get(2)) : "nothing",
                    names(true),
                    i -> i == 0
                            ? now.withColumns(at.subList(0, 2))
                            : now.withColumns(List.of(at.get(0), at.get(1), i - 1))));
            words.add(Ui.sentence("; per cent of "));
            words.add(choice(
                    "count-base",
                    now.base().words(),
                    words(CountSpec.Base.values(), CountSpec.Base::words),
                    i -> now.withBase(CountSpec.Base.values()[i])));
        } else {
            words.add(Ui.sentence("; per cent"));
        }
        words.add(Ui.sentence(" with "));
        words.add(choice(
                "count-decimals",
                String.valueOf(now.decimals()),
                IntStream.rangeClosed(0, 6).mapToObj(String::valueOf).toList(),
                now::withDecimals));
        words.add(Ui.sentence(now.decimals() == 1 ? " decimal, halves " : " decimals, halves "));
        words.add(choice(
                "count-halves",
                now.halves().words(),
                words(CountSpec.Halves.values(), CountSpec.Halves::words),
                i -> now.withHalves(CountSpec.Halves.values()[i])));
        if (at.size() > 1) {
            words.add(Ui.sentence("; show "));
            words.add(choice(
                    "count-show",
                    now.show().words(),
                    words(CountSpec.Show.values(), CountSpec.Show::words),
                    i -> now.withShow(CountSpec.Show.values()[i])));
        }
        if (!lists.isEmpty()) {
            words.add(Ui.sentence("; values of " + Visible.markOddities(columns.get(at.getFirst())) + " as "));
            words.add(listChoice(now));
        }
        words.add(Ui.sentence("; totals "));
        words.add(choice(
                "count-totals",
                now.totals().words(),
                words(CountSpec.Totals.values(), CountSpec.Totals::words),
                i -> now.withTotals(CountSpec.Totals.values()[i])));
        words.add(Ui.sentence("."));
        String focused = focusedId();
        sentence.getChildren().setAll(words);
        words.stream().filter(w -> focused.equals(w.getId())).forEach(Node::requestFocus);
    }

    /// Other words for the values of the first column.
    private Button listChoice(CountSpec now) {
        List<String> offered = new ArrayList<>(List.of("they are written"));
        lists.forEach(l -> offered.add(Visible.markOddities(l.shown())));
        String shown = now.labels().isEmpty() ? offered.getFirst() : listed;
        return new ChoiceBlank("count-words", shown, offered, i -> {
            if (i == 0) {
                change(now.withLabels(Map.of()));
                return;
            }
            asking.words(lists.get(i - 1), found -> {
                if (found.isPresent()) {
                    listed = offered.get(i);
                    change(now.withLabels(Map.of(now.columns().getFirst(), found.get())));
                } else {
                    tell(found.problems().getFirst().sentence(), true);
                }
            });
        });
    }

    private String focusedId() {
        Node owner = sentence.getScene() == null ? null : sentence.getScene().getFocusOwner();
        return owner == null || owner.getId() == null ? "" : owner.getId();
    }

    private static CountSpec by(CountSpec now, int column) {
        List<Integer> at = now.columns();
        if (column < 0) {
            return CountSpec.of(at.subList(0, 1)).withDecimals(now.decimals()).withHalves(now.halves());
        }
        List<Integer> places = new ArrayList<>(List.of(at.get(0), column));
        at.stream().skip(2).forEach(places::add);
        return at.size() == 1
                ? CountSpec.of(places).withDecimals(now.decimals()).withHalves(now.halves())
                : now.withColumns(places);
    }

    private List<String> names(boolean orNothing) {
        List<String> all = new ArrayList<>();
        if (orNothing) {
            all.add("nothing");
        }
        columns.forEach(c -> all.add(Visible.markOddities(c)));
        return all;
    }

    private static <E> List<String> words(E[] values, Function<E, String> words) {
        return java.util.Arrays.stream(values).map(words).toList();
    }

    private Button choice(String id, String now, List<String> offered, IntFunction<CountSpec> taken) {
        return new ChoiceBlank(id, Visible.markOddities(now), offered, i -> change(taken.apply(i)));
    }

    void showTable(Outcome<CountTable> outcome, String based) {
        tables.getChildren().clear();
        if (!outcome.isPresent()) {
            shown = null;
            tables.getChildren().add(Ui.wrapped(outcome.problems().getFirst().sentence(), "problem"));
            return;
        }
        CountTable table = outcome.get();
        shown = table;
        String title = table.title();
        tables.getChildren().add(Ui.label(Character.toUpperCase(title.charAt(0)) + title.substring(1), "heading"));
        for (CountTable.Sheet sheet : table.sheets()) {
            sheet.of().ifPresent(o -> tables.getChildren().add(Ui.label(o, "small-heading")));
            tables.getChildren().add(grid(table, sheet));
        }
        String notes = table.sheets().isEmpty()
                ? ""
                : String.join(" ", table.notes(table.sheets().getFirst()));
        tables.getChildren().add(Ui.wrapped((notes + " Over " + based + ".").strip(), "soft", "small"));
    }

    private static Node grid(CountTable table, CountTable.Sheet sheet) {
        GridPane grid = new GridPane();
        grid.getStyleClass().add("count-grid");
        List<List<String>> lines = table.shown(sheet);
        int rows = Math.min(lines.size(), 1 + MOST_CELLS / lines.getFirst().size());
        for (int r = 0; r < rows; r++) {
            List<String> line = lines.get(r);
            boolean all = r == lines.size() - 1 && r > sheet.rows().size();
            for (int c = 0; c < line.size(); c++) {
                Label label = Ui.label(Visible.markOddities(line.get(c)), c == 0 ? "count-label" : "count-cell");
                label.setMaxWidth(Double.MAX_VALUE);
                Ui.mark(label, "count-head", r == 0);
                Ui.mark(
                        label,
                        "count-all",
                        all
                                || r > 0
                                        && c > 0
                                        && c == line.size() - 1
                                        && c > sheet.columns().size()
                                        && table.names().size() > 1);
                boolean missing = c == 0
                                && r > 0
                                && r <= sheet.rows().size()
                                && sheet.rows().get(r - 1) == null
                        || r == 0
                                && c > 0
                                && table.names().size() > 1
                                && c <= sheet.columns().size()
                                && sheet.columns().get(c - 1) == null;
                Ui.mark(label, "missing-label", missing);
                boolean one = table.names().size() == 1;
                boolean value = r > 0 && c > 0 && r <= sheet.rows().size();
                boolean bar = value && (one ? c == 2 : c <= sheet.columns().size());
                grid.add(bar ? withBar(label, table.share(sheet, r - 1, one ? 0 : c - 1)) : label, c, r);
                GridPane.setFillWidth(label, true);
            }
        }
        VBox box = new VBox(grid);
        if (lines.size() > rows) {
            box.getChildren()
                    .add(Ui.label(
                            String.format(
                                    "the first %,d of %,d lines; save or copy for all", rows - 1, lines.size() - 1),
                            "soft"));
        }
        return box;
    }

    private static final double BAR = 96;

    private static Node withBar(Label label, double share) {
        Region bar = new Region();
        bar.getStyleClass().add("count-bar");
        bar.setMinWidth(share * BAR);
        bar.setMaxWidth(share * BAR);
        VBox box = new VBox(label, bar);
        box.setAlignment(javafx.geometry.Pos.TOP_RIGHT);
        box.getStyleClass().add("count-box");
        return box;
    }

    /// The tables as lines, as they are shown or as plain numbers.
    List<List<String>> lines(boolean formatted) {
        CountTable table = shown;
        if (table == null) {
            return List.of();
        }
        List<List<String>> all = new ArrayList<>();
        for (CountTable.Sheet sheet : table.sheets()) {
            sheet.of().ifPresent(o -> all.add(List.of(o)));
            all.addAll(formatted ? table.shown(sheet) : table.numbers(sheet));
        }
        return all;
    }

    /// The columns that are counted, by their names.
    List<String> counted() {
        return Optional.ofNullable(shown).map(CountTable::names).orElse(List.of());
    }

    Optional<String> title() {
        return Optional.ofNullable(shown).map(CountTable::title);
    }

    void copy(boolean formatted) {
        String text = lines(formatted).stream().map(l -> String.join("\t", l)).collect(Collectors.joining("\n"));
        if (!text.isEmpty()) {
            ClipboardContent content = new ClipboardContent();
            content.putString(text);
            Clipboard.getSystemClipboard().setContent(content);
        }
    }
}
