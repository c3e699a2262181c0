package fixshelf.desktop.parts;

import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.render.Language;
import java.util.stream.Collectors;
import javafx.scene.control.Label;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/// Code in a language under a heading, or the reasons why there is none.
public final class CodeSheet {
    private final Label heading = Ui.label("", "heading");
    private final CodeView code = new CodeView(false);
    private final Label why = Ui.wrapped("", "problem");
    private final VBox box;
    private final VBox view;

    public CodeSheet() {
        box = Ui.column("code-box", code.scrolling());
        VBox.setVgrow(box.getChildren().getFirst(), Priority.ALWAYS);
        box.setMinHeight(140);
        view = new VBox(8, heading, box, why);
    }

    public VBox view() {
        return view;
    }

    public void fill(String words, Language language, Outcome<String> text) {
        heading.setText("As " + language.title() + ", " + words);
        String written = text.value().orElse("").stripTrailing();
        code.show(written, language.keywords());
        box.setPrefHeight(Math.max(120, Math.min(360, written.lines().count() * 20 + 34)));
        box.setVisible(text.isPresent());
        box.setManaged(text.isPresent());
        why.setText(text.problems().stream().map(Problem::sentence).collect(Collectors.joining("\n")));
        why.setVisible(!why.getText().isEmpty());
        why.setManaged(why.isVisible());
    }
}
