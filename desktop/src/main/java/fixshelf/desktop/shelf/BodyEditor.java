package fixshelf.desktop.shelf;

import fixshelf.desktop.parts.CodeView;
import fixshelf.desktop.parts.Completion;
import fixshelf.desktop.parts.Ui;
import fixshelf.language.catalogue.Functions;
import fixshelf.problem.Problem;
import fixshelf.problem.Span;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.animation.PauseTransition;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.fxmisc.richtext.LineNumberFactory;

/// The body of a fix, or a whole page: coloured, with problems underlined where they are, and completion.
public final class BodyEditor {
    private final CodeView code = new CodeView(true);
    private final PauseTransition pause = new PauseTransition(Duration.millis(160));
    private final Completion completion;
    private final Supplier<Optional<FixPage>> page;
    private final Supplier<Shelf> shelf;
    private final VBox box;
    private boolean showing;

    /// `changed` hears the text a moment after the last key.
    BodyEditor(Supplier<Optional<FixPage>> page, Supplier<Shelf> shelf, Consumer<String> changed) {
        this.page = page;
        this.shelf = shelf;
        this.completion = new Completion(code, this::complete);
        code.setParagraphGraphicFactory(LineNumberFactory.get(code, d -> "%" + d + "d"));
        code.textProperty().addListener((_, _, _) -> {
            if (!showing) {
                code.colour(List.of());
                pause.playFromStart();
            }
        });
        pause.setOnFinished(_ -> changed.accept(code.getText()));
        code.addEventHandler(KeyEvent.KEY_TYPED, e -> offer(false));
        code.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.SPACE && e.isShortcutDown()) {
                offer(true);
                e.consume();
            }
        });
        box = Ui.column("code-box", code.scrolling());
        VBox.setVgrow(box.getChildren().getFirst(), javafx.scene.layout.Priority.ALWAYS);
        box.setMinHeight(110);
    }

    Region view() {
        return box;
    }

    public CodeView code() {
        return code;
    }

    public boolean isBusy() {
        return pause.getStatus() == javafx.animation.Animation.Status.RUNNING;
    }

    /// Puts a piece of code where the caret is.
    void insert(String text) {
        code.replaceSelection(text);
        code.requestFocus();
    }

    void show(String text) {
        if (!code.getText().equals(text)) {
            showing = true;
            int caret = code.getCaretPosition();
            code.show(text, java.util.Set.of());
            code.moveTo(Math.min(caret, text.length()));
            showing = false;
        }
    }

    /// Underlines the problems of a page that lie in the part that begins at `start`.
    void mark(List<Problem> problems, int start) {
        List<Span> spans = problems.stream()
                .map(p -> p.where().span())
                .filter(s -> s.start() >= start && s.start() <= start + code.getLength())
                .map(s -> s.shift(-start))
                .toList();
        code.colour(spans);
    }

    private String word() {
        String before = code.getText(0, code.getCaretPosition());
        int start = before.length();
        while (start > 0 && (Character.isLetterOrDigit(before.charAt(start - 1)) || before.charAt(start - 1) == '_')) {
            start--;
        }
        return before.substring(start);
    }

    private void offer(boolean asked) {
        String word = word();
        if (!asked && word.length() < 2) {
            completion.hide();
            return;
        }
        List<String> words = Completion.matching(words(), word, w -> w.replaceFirst("\\(.*", ""));
        boolean done = words.size() == 1 && words.getFirst().equalsIgnoreCase(word);
        code.getCaretBounds().ifPresent(at -> completion.offer(done ? List.of() : words, at));
    }

    private List<String> words() {
        List<String> words = new ArrayList<>();
        page.get().ifPresent(p -> p.parameters().forEach(x -> words.add(x.name())));
        Functions.ALL.stream().filter(f -> !f.isOperator()).forEach(f -> words.add(f.signature()));
        shelf.get().fixes().stream()
                .filter(f -> page.get().map(p -> !p.name().equals(f.name())).orElse(true))
                .forEach(f -> words.add(f.signature().replaceFirst(" →.*", "")));
        words.addAll(List.of("CASE WHEN THEN ELSE END", "RETURN", "SET", "IS NULL", "IS NOT NULL", "LIKE", "IN ()"));
        return words;
    }

    private void complete(String chosen) {
        int caret = code.getCaretPosition();
        int start = caret - word().length();
        boolean call = chosen.contains("(") && Character.isLowerCase(chosen.charAt(0));
        String insert = call ? chosen.substring(0, chosen.indexOf('(')) + "()" : chosen;
        code.replaceText(start, caret, insert);
        code.moveTo(start + insert.length() - (insert.endsWith(")") ? 1 : 0));
    }
}
