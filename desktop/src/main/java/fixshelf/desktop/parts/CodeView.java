package fixshelf.desktop.parts;

import fixshelf.problem.Span;
import java.util.List;
import java.util.Set;
import org.fxmisc.flowless.VirtualizedScrollPane;
import org.fxmisc.richtext.CodeArea;

/// Code to read or to write, with the colours of its language.
public final class CodeView extends CodeArea {
    private Set<String> keywords = Set.of();

    public CodeView(boolean editable) {
        getStyleClass().add("code");
        setEditable(editable);
        setWrapText(true);
        setAccessibleText(editable ? "The body of the fix" : "Code");
    }

    public VirtualizedScrollPane<CodeArea> scrolling() {
        return new VirtualizedScrollPane<>(this);
    }

    public void show(String text, Set<String> words) {
        keywords = words;
        if (!getText().equals(text)) {
            replaceText(text);
        }
        colour(List.of());
    }

    /// Colours the text anew and underlines problems, whose spans count from the start of this text.
    public void colour(List<Span> problems) {
        setStyleSpans(0, CodeText.spans(getText(), keywords, problems));
    }
}
