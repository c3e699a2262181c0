package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Document;
import org.w3c.dom.Element;

/// Results as build servers read them, whatever stands in a value.
class JUnitXmlTest {
    @Test
    void anyParserReadsItWhateverTheValuesHold() throws Exception {
        StringBuilder odd = new StringBuilder("<a href=\"x\">&amp; ]]> 'it''s' ü 😀 ");
        for (int c = 0; c <= 0xFFFF; c += c < 0x100 ? 1 : 97) {
            odd.append(Character.isSurrogate((char) c) ? ' ' : (char) c);
        }
        odd.append("\uFFFE\uFFFF");
        String xml = JUnitXml.print(List.of(
                new JUnitXml.Test("squeeze in DuckDB", "case 1", ""),
                new JUnitXml.Test("squeeze in DuckDB", "case 2 <" + odd, "expected " + odd),
                new JUnitXml.Test("other", "case 1", "no\ntwo lines")));
        Document document = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)));
        Element first = (Element) document.getElementsByTagName("testsuite").item(0);
        assertThat(first.getAttribute("tests")).isEqualTo("2");
        assertThat(first.getAttribute("failures")).isEqualTo("1");
        Element failure = (Element) first.getElementsByTagName("failure").item(0);
        assertThat(failure.getAttribute("message")).startsWith("expected <a href=\"x\">&amp; ]]> 'it''s' ü 😀");
        assertThat(document.getElementsByTagName("testcase").getLength()).isEqualTo(3);
    }
}
