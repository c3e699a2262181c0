package fixshelf.desktop.data;

import fixshelf.desktop.parts.Ui;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.ReadOptions.Form.Places;
import fixshelf.source.FixedPlaces;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import java.util.function.Consumer;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;

/// Where the columns of lines of text begin, marked on the lines themselves: as they are proposed,
/// and as the user says.
final class PlacesPage {
    private static final int MOST_LINES = 24;
    private static final int MOST_SIGNS = 400;
    private static final String HOW =
            "Press a place between the signs to begin a column there, or to take one away. By keys: ← and → go, Space marks,"
                    + " Enter takes it as it is. The file stays as it is.";

    private final Label title = Ui.label("", "title");
    private final Label about = Ui.wrapped("", "soft");
    private final Pane lines = new Pane();
    private final ScrollPane scroll = new ScrollPane(lines);
    private final CheckBox heading = new CheckBox("The first line holds the names");
    private final CheckBox pages = new CheckBox("Leave out what stands at the head or the foot of nearly every page");
    private final Button take = new Button();
    private final Button whole = new Button("One column of whole lines");
    private final VBox view;
    private final TreeSet<Integer> starts = new TreeSet<>();
    private List<String> texts = List.of();
    private List<String> all = List.of();
    private ReadOptions options = ReadOptions.of("");
    private Consumer<ReadOptions> chosen = _ -> {};
    private int cursor = 1;

    PlacesPage() {
        lines.setId("places");
        lines.getStyleClass().add("marked-lines");
        lines.setFocusTraversable(true);
        lines.setAccessibleText("Lines with marks where columns begin");
        lines.setOnKeyPressed(this::key);
        lines.setOnMousePressed(e -> {
            lines.requestFocus();
            turn(Math.max(1, (int) Math.round(e.getX() / sign().getWidth()) + 1));
        });
        lines.focusedProperty().addListener((_, _, _) -> draw());
        scroll.getStyleClass().add("page");
        heading.selectedProperty().addListener((_, _, _) -> draw());
        pages.selectedProperty().addListener((_, _, _) -> draw());
        take.getStyleClass().setAll("button", "strong");
        take.setOnAction(_ -> chosen.accept(read()));
        whole.getStyleClass().setAll("button", "usual");
        whole.setOnAction(_ -> {
            starts.clear();
            starts.add(1);
            heading.setSelected(false);
            draw();
        });
        VBox.setVgrow(scroll, Priority.ALWAYS);
        view = new VBox(10, title, about, scroll, heading, pages, Ui.row("state", take, whole));
        view.getStyleClass().add("parts-page");
        VBox.setVgrow(view, Priority.ALWAYS);
    }

    VBox view() {
        return view;
    }

    Node focusTarget() {
        return lines;
    }

    /// @param shape how the file is read as it is proposed, with places
    /// @param taken is told how it is read as the user marked it
    void show(String file, List<String> first, ReadOptions shape, Consumer<ReadOptions> taken) {
        all = first;
        texts = first.stream()
                .limit(MOST_LINES)
                .map(l -> l.replace("\f", ""))
                .map(l -> l.length() > MOST_SIGNS ? l.substring(0, MOST_SIGNS) : l)
                .toList();
        options = shape;
        chosen = taken;
        starts.clear();
        starts.add(1);
        Places form = (Places) shape.form().orElseThrow();
        starts.addAll(form.starts());
        heading.setSelected(shape.heading());
        pages.setVisible(form.pages() != Places.Pages.NONE);
        pages.setManaged(pages.isVisible());
        pages.setSelected(form.pages() == Places.Pages.LEAVE_OUT_HEADS);
        title.setText("Where do the columns of " + file + " begin?");
        about.setText((starts.size() > 1
                        ? "These places are proposed, as the lines have blanks before them. "
                        : "No place has blanks before it in every line. ")
                + HOW);
        cursor = 1;
        draw();
    }

    private ReadOptions read() {
        Places form = (Places) options.form().orElseThrow();
        Places.Pages printed = form.pages() == Places.Pages.NONE
                ? Places.Pages.NONE
                : pages.isSelected() ? Places.Pages.LEAVE_OUT_HEADS : Places.Pages.KEEP_HEADS;
        return options.withShape(options.separator(), options.quote(), options.encoding(), heading.isSelected())
                .withForm(new Places(List.copyOf(starts), printed));
    }

    private void key(KeyEvent event) {
        switch (event.getCode()) {
            case LEFT -> cursor = Math.max(1, cursor - 1);
            case RIGHT -> cursor = Math.min(widest() + 1, cursor + 1);
            case HOME -> cursor = 1;
            case END -> cursor = widest() + 1;
            case SPACE -> turn(cursor);
            case ENTER -> chosen.accept(read());
            default -> {
                return;
            }
        }
        event.consume();
        draw();
    }

    private void turn(int place) {
        cursor = Math.min(place, widest() + 1);
        if (cursor > 1 && !starts.remove(cursor)) {
            starts.add(cursor);
        }
        draw();
    }

    private int widest() {
        return texts.stream()
                .mapToInt(t -> t.codePointCount(0, t.length()))
                .max()
                .orElse(1);
    }

    /// How wide and high a sign is.
    private Bounds sign() {
        Text one = new Text("0000000000");
        one.getStyleClass().add("marked-line");
        Pane measured = new Pane(one);
        measured.getStyleClass().add("marked-lines");
        if (view.getScene() != null) {
            // Styles reach it only inside of the window.
            lines.getChildren().add(measured);
            measured.applyCss();
            lines.getChildren().remove(measured);
        }
        Bounds all = one.getLayoutBounds();
        return new javafx.geometry.BoundingBox(0, 0, all.getWidth() / 10, all.getHeight());
    }

    private void draw() {
        Bounds sign = sign();
        double high = sign.getHeight() * 1.25;
        double total = high * (texts.size() + 1.4);
        lines.getChildren().clear();
        List<Integer> places = new ArrayList<>(starts);
        int named = texts.isEmpty()
                ? 0
                : FixedPlaces.heading(all, (Places) read().form().orElseThrow());
        List<String> names = FixedPlaces.cut(named < texts.size() ? texts.get(named) : "", places);
        heading.setText(named == 0 ? "The first line holds the names" : "The head of a page holds the names");
        for (int i = 0; i < places.size(); i++) {
            double from = (places.get(i) - 1) * sign.getWidth();
            double to = (i + 1 < places.size() ? places.get(i + 1) - 1 : widest() + 2) * sign.getWidth();
            if (i % 2 == 1) {
                lines.getChildren().add(at(new Region(), "place-band", from, 0, to - from, total));
            }
            boolean called = heading.isSelected() && !names.get(i).isBlank();
            Label name = Ui.label(called ? names.get(i).strip() : "column_" + (i + 1), "place-name");
            lines.getChildren().add(at(name, "", from + 2, 0, Math.max(4, to - from - 4), high));
        }
        for (int i = 0; i < texts.size(); i++) {
            Text text = new Text(0, high * (i + 2.1), texts.get(i).replace('\t', ' '));
            text.getStyleClass().add(i == named && heading.isSelected() ? "marked-heading" : "marked-line");
            text.setMouseTransparent(true);
            lines.getChildren().add(text);
        }
        places.stream().filter(p -> p > 1).forEach(p -> lines.getChildren()
                .add(at(new Region(), "place-mark", (p - 1) * sign.getWidth() - 1, high * 1.2, 2, total - high * 1.2)));
        if (lines.isFocused()) {
            lines.getChildren()
                    .add(at(
                            new Region(),
                            "place-cursor",
                            (cursor - 1) * sign.getWidth() - 2,
                            high * 1.2,
                            4,
                            total - high * 1.2));
        }
        lines.setMinSize((widest() + 3) * sign.getWidth(), total);
        take.setText("Read it as " + Ui.count(places.size(), "column", "columns"));
    }

    private static Region at(Region region, String style, double x, double y, double width, double height) {
        if (!style.isEmpty()) {
            region.getStyleClass().add(style);
        }
        region.setMouseTransparent(true);
        region.resizeRelocate(x, y, width, height);
        region.setManaged(false);
        return region;
    }
}
