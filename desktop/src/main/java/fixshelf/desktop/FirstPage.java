package fixshelf.desktop;

import fixshelf.demo.ReadyMade;
import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.FacingPages;
import fixshelf.desktop.parts.PathField;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.UserSettings;
import fixshelf.engine.FixEngines;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.render.Language;
import fixshelf.render.Languages;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/// The page of a window without a shelf: on the left the ways to one, on the right the shelves that were open lately,
/// the languages of this machine, and what is worth trying.
final class FirstPage {
    /// What the window does when a way is taken.
    interface Ways {
        void open(Path folder);

        /// Makes a shelf in a folder that has none, and opens it.
        ///
        /// @param readyMade whether it gets the ready-made fixes, instead of a small job only
        void make(Path folder, boolean readyMade);

        /// Makes a shelf for a file, whose first job reads it.
        void bring(Path file, Path folder);

        /// Opens the demo, at something to try; empty where nothing is named.
        void demo(String what);

        Optional<Path> chooseFolder(String title);

        Optional<Path> chooseFile();
    }

    private final UserSettings settings;
    private final Background background;
    private final Ways ways;
    private final VBox left = Ui.column("ways");
    private final VBox right = Ui.column("sheet");
    private final VBox wrong = Ui.column("first-words");
    private final FacingPages view;
    private final PathField file;
    private final PathField fileShelf;
    private final List<Node> details = new ArrayList<>();
    private final Button bring;

    FirstPage(UserSettings settings, Background background, Ways ways, List<Problem> problems) {
        this.settings = settings;
        this.background = background;
        this.ways = ways;
        file = new PathField(background, "first-file", "the path of a file", this::bring);
        fileShelf = new PathField(background, "first-file-shelf", "a folder for its shelf", _ -> bringTyped());
        left.getChildren().add(Ui.wrapped("What would you like to mend?", "question"));
        left.getChildren()
                .add(Ui.wrapped(
                        "A shelf is a folder of plain pages: fixes, datasets, jobs. It is yours, and readable without this program.",
                        "soft"));
        bring = way(
                "Bring a file",
                "Drop it here, or type where it is. A first job begins with the line that reads it.",
                file,
                Ui.button(Command.of("Choose …", "", () -> ways.chooseFile().ifPresent(this::bring))),
                fileShelf,
                Ui.button(Command.of("Begin with it", "", this::bringTyped), "strong"));
        way(
                "Look around in the demo",
                "The mending rooms of the Brindle Valley, each with its own mess: a copy that is yours to change.",
                () -> ways.demo(""));
        PathField folder =
                new PathField(background, "first-folder", "a folder, which is made", f -> ways.make(f, false));
        way(
                "Begin a shelf",
                "With a first job that runs, or with the " + ReadyMade.count() + " fixes that everybody needs, too.",
                folder,
                Ui.button(Command.of("Choose …", "", () -> ways.chooseFolder("A folder for the new shelf")
                        .ifPresent(f -> folder.setText(f.toString())))),
                Ui.button(Command.of("With a first job", "", () -> take(folder, false)), "strong"),
                Ui.button(Command.of("With all fixes", "", () -> take(folder, true))));
        PathField shelf = new PathField(background, "first-shelf", "the folder of a shelf", ways::open);
        way(
                "Open a shelf",
                "A folder, also one of a colleague: nothing in it runs by being opened.",
                shelf,
                Ui.button(Command.of("Choose …", "", () -> ways.chooseFolder("The shelf's folder")
                        .ifPresent(ways::open))));
        right.getChildren().add(wrong);
        tell(problems);
        lately();
        machine();
        tries();
        view = new FacingPages(Ui.page(left), Ui.page(right));
    }

    FacingPages view() {
        return view;
    }

    /// Says what is wrong, above all else.
    void tell(List<Problem> problems) {
        wrong.getChildren()
                .setAll(problems.stream()
                        .map(p -> Ui.wrapped(words(p), "problem"))
                        .toList());
        wrong.setManaged(!problems.isEmpty());
    }

    /// What is to be done stands beside it here, as the ways.
    static String words(Problem problem) {
        String place = problem.where().source().name();
        return problem.code() == Code.NO_SUCH ? place + ": " + problem.what() : problem.sentence();
    }

    void focus() {
        bring.requestFocus();
    }

    /// A file to begin with, for which a folder is proposed beside it.
    void bring(Path chosen) {
        open(file.getParent().getParent());
        file.setText(chosen.toString());
        String name = chosen.getFileName().toString().replaceFirst("\\.[^.]*$", "");
        Path beside = Optional.ofNullable(chosen.toAbsolutePath().getParent()).orElse(chosen);
        if (fileShelf.isBlank()) {
            fileShelf.setText(beside.resolve(name + "-shelf").toString());
        }
        fileShelf.requestFocus();
        fileShelf.positionCaret(fileShelf.getText().length());
    }

    private void bringTyped() {
        if (!file.isBlank() && fileShelf.isBlank()) {
            bring(file.path());
        } else if (!file.isBlank()) {
            ways.bring(file.path(), fileShelf.path());
        } else {
            file.requestFocus();
        }
    }

    private void take(PathField folder, boolean readyMade) {
        if (folder.isBlank()) {
            folder.requestFocus();
        } else {
            ways.make(folder.path(), readyMade);
        }
    }

    /// A way whose controls come out when it is pressed.
    private Button way(String title, String words, Region... controls) {
        VBox detail = Ui.column("way-detail");
        for (Region control : controls) {
            if (control instanceof Button) {
                control.setMinWidth(Region.USE_PREF_SIZE);
            } else {
                HBox.setHgrow(control, Priority.ALWAYS);
            }
        }
        for (int i = 0; i < controls.length; i += 2) {
            detail.getChildren()
                    .add(
                            i + 1 < controls.length
                                    ? Ui.row("state", controls[i], controls[i + 1])
                                    : Ui.row("state", controls[i]));
        }
        detail.setVisible(false);
        detail.setManaged(false);
        details.add(detail);
        Button button = way(title, words, () -> open(detail));
        left.getChildren().add(detail);
        return button;
    }

    private Button way(String title, String words, Runnable go) {
        Button button = Ui.blank(title, "way", go);
        left.getChildren().addAll(Ui.column("hair"), button, Ui.wrapped(words, "soft", "small"));
        return button;
    }

    private void open(Node detail) {
        boolean was = detail.isVisible();
        details.forEach(d -> {
            d.setVisible(d == detail);
            d.setManaged(d == detail);
        });
        if (!was) {
            detail.lookupAll(".text-field").stream().findFirst().ifPresent(Node::requestFocus);
        }
    }

    private void lately() {
        right.getChildren().add(Ui.label("Lately", "heading"));
        GridPane table = new GridPane();
        table.getStyleClass().add("lately");
        right.getChildren().add(table);
        table.add(Ui.label("Looking …", "soft"), 0, 0);
        background.ask(
                Request.now("first", "looking at the shelves of lately"),
                () -> settings.lastShelves().stream()
                        .map(f -> LateShelf.of(f, settings.casesOf(f)))
                        .toList(),
                shelves -> {
                    table.getChildren().clear();
                    if (shelves.isEmpty()) {
                        table.add(Ui.wrapped("The shelves that you open stand here.", "soft"), 0, 0);
                        return;
                    }
                    table.addRow(
                            0,
                            Ui.label("shelf", "table-head"),
                            Ui.label("where", "table-head"),
                            Ui.label("fixes", "table-head"),
                            Ui.label("cases", "table-head"),
                            Ui.label("last run", "table-head"));
                    for (int i = 0; i < shelves.size(); i++) {
                        LateShelf s = shelves.get(i);
                        table.addRow(
                                i + 1,
                                Ui.blank(s.name(), "fix-link", () -> ways.open(s.folder())),
                                Ui.label(s.where(), "mono"),
                                Ui.label(String.format("%,d", s.fixes()), "mono"),
                                Ui.label(s.cases(), s.cases().startsWith("▲") ? "fails" : "holds"),
                                Ui.label(s.lastRun(), s.hasRun() ? "plain-words" : "soft"));
                    }
                });
    }

    private void machine() {
        VBox words = Ui.column("first-words", Ui.label("Looking which languages can be run …", "soft"));
        right.getChildren().addAll(Ui.label("On this machine", "heading"), words);
        background.ask(
                Request.now("engines", "looking which languages can be run"),
                FirstPage::languages,
                found -> words.getChildren()
                        .setAll(found.stream()
                                .map(l -> Ui.wrapped(l.words(), l.isHere() ? "plain-words" : "soft"))
                                .toList()));
    }

    /// Languages in words.
    ///
    /// @param isHere whether they can be run
    private record Found(String words, boolean isHere) {}

    private static List<Found> languages() {
        List<String> here = new ArrayList<>();
        List<Found> away = new ArrayList<>();
        for (Language language : Languages.ALL) {
            if (language.isRunHere()) {
                FixEngines.of(language).map(e -> e.presence()).ifPresent(presence -> {
                    if (presence.isHere()) {
                        here.add(language.title() + version(presence.sentence()));
                    } else {
                        away.add(new Found(language.title() + " is not here: " + presence.sentence() + ".", false));
                    }
                });
            }
        }
        List<Found> all = new ArrayList<>();
        all.add(new Found(
                here.stream().collect(Collectors.joining(" · ")) + (here.isEmpty() ? "" : " can be run."), true));
        all.addAll(away);
        return all;
    }

    /// The first number in what an engine says of itself: `run on 15.20, started for the check`.
    private static String version(String sentence) {
        Matcher number = Pattern.compile("[0-9]+([.][0-9]+)*").matcher(sentence);
        return number.find() ? " " + number.group() : "";
    }

    private void tries() {
        right.getChildren().add(Ui.label("Three things to try", "heading"));
        right.getChildren().add(thing("Type a text into a fix and see it in every language", "try it", "fix"));
        right.getChildren().add(thing("See which rows leave before they do", "a job with repeats", "leaving"));
        right.getChildren()
                .add(thing(
                        "See what every line made of a value (Enter on any cell of a job)",
                        "a cost as it was typed",
                        "life"));
    }

    private Node thing(String words, String link, String what) {
        return Ui.row("state", Ui.label(words + " ·"), Ui.blank(link, "fix-link", () -> ways.demo(what)));
    }
}
