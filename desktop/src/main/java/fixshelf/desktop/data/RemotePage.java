package fixshelf.desktop.data;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.PasswordBlank;
import fixshelf.desktop.parts.Ui;
import fixshelf.fetch.Secrets;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.DatasetPages;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.BiFunction;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/// A dataset that is in no file here, said in blanks: a table of a database server, or of a page of the web.
final class RemotePage {
    /// A blank.
    ///
    /// @param field the field of the page
    /// @param about what stands in it, beside it
    private record Blank(String field, String label, String example, String about) {}

    private static final Blank NAME =
            new Blank("dataset", "Call it", "visits_of_the_office", "the name of the dataset");
    private static final Blank TABLE = new Blank(
            "table", "Table", "visits", "with its schema where there are several; empty: all are shown to choose from");
    private static final Blank QUERY =
            new Blank("query", "Or a query", "SELECT … FROM …", "in the language of the server, instead of a table");
    private static final Blank USER = new Blank("user", "User", "reader", "whose rights are used; empty for none");
    private static final Blank PASSWORD = new Blank(
            "password_from",
            "Password from",
            "ROOMS_PASSWORD",
            "the variable of the system that holds it; it never stands in a page");
    private static final Blank KEEP = new Blank(
            "keep", "Copy is good for", "live", "live: asked anew each time; or 30 minutes, 12 hours, 7 days");
    private static final Blank PAGE_TABLE = new Blank(
            "table",
            "Table",
            "1",
            "its number on the page, or words of its caption; empty: all are shown to choose from");

    private static Blank address(String example) {
        return new Blank("read", "Address", example, "may hold {name} of the environment");
    }

    private enum Kind {
        POSTGRESQL(
                "PostgreSQL",
                "postgresql",
                List.of(address("postgresql://host:5432/database"), TABLE, QUERY, USER, PASSWORD, KEEP, NAME)),
        MARIADB(
                "MariaDB",
                "mariadb",
                List.of(address("mariadb://host:3306/database"), TABLE, QUERY, USER, PASSWORD, KEEP, NAME)),
        JDBC(
                "Another database",
                "jdbc",
                List.of(address("jdbc:kind://host/database"), TABLE, QUERY, USER, PASSWORD, KEEP, NAME)),
        WEB("A page of the web", "web", List.of(address("https://host/page"), PAGE_TABLE, KEEP, NAME));

        private final String words;
        private final String kind;
        private final List<Blank> blanks;

        Kind(String words, String kind, List<Blank> blanks) {
            this.words = words;
            this.kind = kind;
            this.blanks = blanks;
        }
    }

    private final BiFunction<String, ReadOptions, Optional<String>> keep;
    private final ToggleGroup kinds = new ToggleGroup();
    private final GridPane grid = new GridPane(12, 8);
    private final Label problem = Ui.wrapped("", "problem");
    private final VBox asked = new VBox();
    private final Map<String, TextField> fields = new LinkedHashMap<>();
    private final VBox view;
    private Kind now = Kind.POSTGRESQL;

    /// @param keep keeps the dataset under a name, and gives what is wrong if that cannot be
    RemotePage(BiFunction<String, ReadOptions, Optional<String>> keep) {
        this.keep = keep;
        HBox toggles = new HBox();
        for (Kind each : Kind.values()) {
            ToggleButton button = new ToggleButton(each.words);
            button.getStyleClass().setAll("toggle");
            button.setToggleGroup(kinds);
            button.setUserData(each.kind);
            button.setSelected(each == now);
            button.setOnAction(_ -> {
                button.setSelected(true);
                now = each;
                fill();
            });
            toggles.getChildren().add(button);
        }
        view = new VBox(
                14,
                Ui.label("Read what is in no file here", "title"),
                Ui.wrapped(
                        "Its rows are copied into the shelf's own folder and looked at there. The button lets this"
                                + " shelf read from the place, and nothing is ever written to it.",
                        "soft"),
                toggles,
                grid,
                new HBox(Ui.button(Command.of("Keep it and look at it", "", this::keep), "strong")),
                problem,
                asked);
        view.setId("remote");
        view.setPadding(new Insets(16, 0, 0, 0));
        fill();
    }

    VBox view() {
        return view;
    }

    Node focusTarget() {
        return fields.values().stream()
                .filter(f -> f.getText().isEmpty())
                .findFirst()
                .orElse(fields.values().iterator().next());
    }

    /// Begins with an address.
    void begin(String address) {
        fields.values().forEach(TextField::clear);
        String kind = ReadOptions.kindOfAddress(address).orElse(now.kind);
        kinds.getToggles().stream().filter(t -> kind.equals(t.getUserData())).forEach(t -> ((ToggleButton) t).fire());
        Objects.requireNonNull(fields.get("read")).setText(address);
    }

    private void fill() {
        Map<String, TextField> before = new LinkedHashMap<>(fields);
        fields.clear();
        grid.getChildren().clear();
        int row = 0;
        for (Blank blank : now.blanks) {
            TextField field = new TextField(Optional.ofNullable(before.get(blank.field()))
                    .map(TextField::getText)
                    .orElse(""));
            field.setPromptText(blank.example());
            field.setPrefColumnCount(30);
            field.setId("remote-" + blank.field());
            field.setAccessibleText(blank.label() + ": " + blank.about());
            field.setOnAction(_ -> keep());
            fields.put(blank.field(), field);
            grid.addRow(row++, Ui.label(blank.label()), field, Ui.wrapped(blank.about(), "soft", "small"));
        }
        say("");
    }

    /// Says why nothing was read; a password that is missing can be typed, and then it is tried again.
    void wrong(Problem why, Runnable again) {
        say(Secrets.askedBy(why).isPresent() ? why.what() + " Type it here." : why.sentence());
        PasswordBlank.of(Optional.of(why), again).ifPresent(blank -> {
            asked.getChildren().setAll(blank);
            blank.getChildren().getLast().requestFocus();
        });
    }

    private void say(String words) {
        asked.getChildren().clear();
        problem.setText(words);
        problem.setVisible(!words.isEmpty());
    }

    private void keep() {
        Map<String, String> written = new LinkedHashMap<>();
        written.put("kind", now.kind);
        fields.forEach((name, field) -> {
            if (!field.getText().isBlank()) {
                written.put(name, field.getText().strip());
            }
        });
        if (!written.containsKey("dataset")) {
            say("Give it a name: " + NAME.example() + ", say.");
            return;
        }
        Outcome<ReadOptions> options = DatasetPages.options(written);
        say(
                options.isPresent()
                        ? keep.apply(written.get("dataset"), options.get()).orElse("")
                        : options.problems().getFirst().sentence());
    }
}
