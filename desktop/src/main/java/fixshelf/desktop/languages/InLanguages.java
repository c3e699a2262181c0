package fixshelf.desktop.languages;

import fixshelf.render.Language;
import javafx.scene.layout.Region;

/// What the place of languages shows of one thing: of a fix, of a job, or of the whole shelf.
interface InLanguages {
    /// How a language stands to it.
    ///
    /// @param mark a sign and a word
    /// @param style the style class of the mark
    /// @param detail a sentence; may be empty
    record Standing(String mark, String style, String detail) {}

    String subtitle();

    Standing standing(Language language);

    /// The right page, filled for the chosen language.
    Region page(Language chosen);

    /// Asks for all that has to be run, with so many made-up values where values are made up.
    void check(int values);

    /// The code in the language, to copy; empty when there is none.
    String code(Language language);

    String status();
}
