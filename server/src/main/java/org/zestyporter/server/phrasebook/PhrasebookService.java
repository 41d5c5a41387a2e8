package org.zestyporter.server.phrasebook;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.StringWriter;
import java.time.Clock;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.zestyporter.core.fill.Phrases;
import org.zestyporter.core.plan.Phrasebook;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.core.value.HarmlessCells;
import org.zestyporter.core.value.PorterException;
import org.zestyporter.server.web.Times;

/** Keeps the phrasebooks that plans share. */
@Service
public class PhrasebookService {
  private static final int LONGEST_WORD = 400;

  private final PhrasebookMapper books;
  private final Clock clock;

  /**
   * A phrasebook in a list.
   *
   * @param connection whose values its translations are; null if they are free texts
   * @param used rows of runs that it translated
   */
  public record BookSummary(
      long id,
      String name,
      @Nullable String connection,
      @Nullable String table,
      @Nullable String field,
      int phrases,
      long used,
      @Nullable LocalDateTime lastUsed,
      String savedBy,
      LocalDateTime savedAt) {}

  /** A phrasebook with its phrases. */
  public record BookView(BookSummary book, List<PhraseView> phrases) {}

  /** A translation, and how often it served. */
  public record PhraseView(
      String from,
      @Nullable String to,
      String learntBy,
      LocalDateTime learntAt,
      long used,
      @Nullable LocalDateTime lastUsed) {}

  /** What a new phrasebook is about. */
  public record NewBook(
      String name, @Nullable String connection, @Nullable String table, @Nullable String field) {}

  PhrasebookService(PhrasebookMapper books, Clock clock) {
    this.books = books;
    this.clock = clock;
  }

  public List<BookSummary> all() {
    Map<Long, List<PhraseRecord>> byBook = new HashMap<>();
    books
        .everyPhrase()
        .forEach(p -> byBook.computeIfAbsent(p.bookId(), b -> new ArrayList<>()).add(p));
    return books.all().stream()
        .map(b -> summary(b, byBook.getOrDefault(b.id(), List.of())))
        .toList();
  }

  private static BookSummary summary(BookRecord book, List<PhraseRecord> phrases) {
    return new BookSummary(
        book.id(),
        book.name(),
        book.connection(),
        book.aboutTable(),
        book.aboutField(),
        phrases.size(),
        phrases.stream().mapToLong(PhraseRecord::used).sum(),
        phrases.stream()
            .map(PhraseRecord::lastUsed)
            .filter(t -> t != null)
            .max(LocalDateTime::compareTo)
            .orElse(null),
        book.savedBy(),
        book.savedAt());
  }

  private BookRecord require(long id) {
    BookRecord book = books.find(id);
    if (book == null) {
      throw ErrorCode.NO_SUCH_PHRASEBOOK.error("There is no such phrasebook any more.");
    }
    return book;
  }

  public BookView find(long id) {
    BookRecord book = require(id);
    List<PhraseRecord> phrases = books.phrases(id);
    return new BookView(
        summary(book, phrases),
        phrases.stream()
            .map(
                p ->
                    new PhraseView(
                        p.sourceWord(),
                        p.target(),
                        p.learntBy(),
                        p.learntAt(),
                        p.used(),
                        p.lastUsed()))
            .toList());
  }

  /** All of them, as plans use them. */
  public List<Phrasebook> forPlans() {
    Map<Long, List<Phrasebook.Phrase>> byBook = new HashMap<>();
    for (PhraseRecord p : books.everyPhrase()) {
      byBook
          .computeIfAbsent(p.bookId(), b -> new ArrayList<>())
          .add(new Phrasebook.Phrase(p.sourceWord(), p.target()));
    }
    return books.all().stream()
        .map(b -> new Phrasebook(b.name(), byBook.getOrDefault(b.id(), List.of())))
        .toList();
  }

  /**
   * Makes an empty phrasebook.
   *
   * @throws PorterException if the name is taken or blank
   */
  @Transactional
  public long create(NewBook wanted, String who) {
    String name = wanted.name() == null ? "" : wanted.name().strip();
    if (name.isEmpty() || name.length() > 80) {
      throw ErrorCode.NAME.error("A phrasebook needs a name of up to 80 characters.");
    }
    if (books.named(name) != null) {
      throw ErrorCode.NAME_TAKEN.error("There is a phrasebook “" + name + "” already.");
    }
    return books.insert(
        new BookRecord(
            null,
            name,
            wanted.connection(),
            wanted.table(),
            wanted.field(),
            who,
            Times.now(clock)));
  }

  /** Learns a translation; the book is made if there is none of that name. */
  @Transactional
  public long learn(NewBook about, Phrasebook.Phrase phrase, String who) {
    if (about == null) {
      throw ErrorCode.NAME.error("Say which phrasebook is to learn it.");
    }
    BookRecord book = books.named(about.name());
    long id = book == null ? create(about, who) : book.id();
    put(id, phrase, who);
    return id;
  }

  /** Adds a translation to a book, or replaces the one for its word. */
  @Transactional
  public void put(long id, Phrasebook.Phrase phrase, String who) {
    require(id);
    String word = phrase.from() == null ? "" : phrase.from().strip();
    if (word.isEmpty() || word.length() > LONGEST_WORD) {
      throw ErrorCode.WORD.error("A phrase needs a word of up to 400 characters.");
    }
    if (phrase.to() != null && phrase.to().length() > 1_000) {
      throw ErrorCode.WORD.error("A translation may have up to 1,000 characters.");
    }
    LocalDateTime now = Times.now(clock);
    String to = phrase.to() == null || phrase.to().isEmpty() ? null : phrase.to();
    books.put(new PhraseRecord(id, Phrases.prepare(word), word, to, who, now, 0, null));
    books.touch(id, who, now);
  }

  @Transactional
  public void forget(long id, String word, String who) {
    require(id);
    books.forget(id, Phrases.prepare(word));
    books.touch(id, who, Times.now(clock));
  }

  @Transactional
  public void delete(long id) {
    require(id);
    books.delete(id);
  }

  /** Counts rows that a run translated, by word. */
  @Transactional
  public void used(String book, Map<String, Long> rowsByWord) {
    BookRecord found = books.named(book);
    if (found != null) {
      LocalDateTime now = Times.now(clock);
      rowsByWord.forEach((word, rows) -> books.used(found.id(), Phrases.prepare(word), rows, now));
    }
  }

  /**
   * A book as CSV (RFC 4180) with the titles from, to.
   *
   * @param raw true if cells are written as they are, even if a spreadsheet takes them for formulas
   */
  public String csv(long id, boolean raw) {
    StringWriter text = new StringWriter();
    try (CsvWriter csv = CsvWriter.builder().build(text)) {
      csv.writeRecord("from", "to");
      for (PhraseView phrase : find(id).phrases()) {
        String to = phrase.to() == null ? "" : phrase.to();
        csv.writeRecord(
            raw ? phrase.from() : HarmlessCells.guard(phrase.from()),
            raw ? to : HarmlessCells.guard(to));
      }
    } catch (java.io.IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    return text.toString();
  }

  /**
   * Takes in the phrases of a CSV text of two columns, with titles or without.
   *
   * @return how many it held
   * @throws PorterException naming the line that can't be taken; nothing is changed then
   */
  @Transactional
  public int takeIn(long id, String text, String who) {
    require(id);
    String bare = text.startsWith("\uFEFF") ? text.substring(1) : text;
    String firstLine = bare.lines().findFirst().orElse("");
    char separator =
        firstLine.chars().filter(c -> c == ';').count()
                > firstLine.chars().filter(c -> c == ',').count()
            ? ';'
            : firstLine.indexOf('\t') >= 0 ? '\t' : ',';
    int count = 0;
    try (CsvReader<CsvRecord> csv =
        CsvReader.builder()
            .fieldSeparator(separator)
            .allowExtraFields(true)
            .allowMissingFields(true)
            .ofCsvRecord(bare)) {
      for (CsvRecord line : csv) {
        boolean titles =
            count == 0
                && line.getStartingLineNumber() == 1
                && line.getField(0).strip().equalsIgnoreCase("from");
        if (titles) {
          continue;
        }
        if (line.getFieldCount() != 2 || line.getField(0).isBlank()) {
          throw ErrorCode.CSV.error(
              "Line "
                  + line.getStartingLineNumber()
                  + " should hold a word and its translation. Nothing was taken in.");
        }
        put(
            id,
            new Phrasebook.Phrase(
                HarmlessCells.unguard(line.getField(0)), HarmlessCells.unguard(line.getField(1))),
            who);
        count++;
      }
    } catch (CsvParseException | java.io.IOException e) {
      throw ErrorCode.CSV.error("The text is no CSV that can be read. Nothing was taken in.");
    }
    return count;
  }
}
