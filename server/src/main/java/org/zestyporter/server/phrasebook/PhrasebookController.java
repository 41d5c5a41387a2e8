package org.zestyporter.server.phrasebook;

import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zestyporter.core.plan.Phrasebook;

@RestController
@RequestMapping("/api/phrasebooks")
class PhrasebookController {
  private final PhrasebookService books;

  PhrasebookController(PhrasebookService books) {
    this.books = books;
  }

  record BookId(long id) {}

  record Learnt(PhrasebookService.NewBook book, String from, @Nullable String to) {}

  record Phrase(String from, @Nullable String to) {}

  record Csv(String text) {}

  record TakenIn(int phrases) {}

  @GetMapping
  List<PhrasebookService.BookSummary> all() {
    return books.all();
  }

  @PostMapping
  @ResponseStatus(HttpStatus.CREATED)
  BookId create(@RequestBody PhrasebookService.NewBook book, Principal who) {
    return new BookId(books.create(book, who.getName()));
  }

  /** Learns a translation; the book is made if there is none of that name. */
  @PostMapping("/learn")
  BookId learn(@RequestBody Learnt learnt, Principal who) {
    return new BookId(
        books.learn(
            learnt.book(), new Phrasebook.Phrase(learnt.from(), learnt.to()), who.getName()));
  }

  @GetMapping("/{id}")
  PhrasebookService.BookView find(@PathVariable long id) {
    return books.find(id);
  }

  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void delete(@PathVariable long id) {
    books.delete(id);
  }

  @PutMapping("/{id}/phrases")
  PhrasebookService.BookView put(@PathVariable long id, @RequestBody Phrase phrase, Principal who) {
    books.put(id, new Phrasebook.Phrase(phrase.from(), phrase.to()), who.getName());
    return books.find(id);
  }

  @DeleteMapping("/{id}/phrases")
  PhrasebookService.BookView forget(
      @PathVariable long id, @RequestParam String word, Principal who) {
    books.forget(id, word, who.getName());
    return books.find(id);
  }

  @GetMapping(value = "/{id}/csv", produces = "text/csv;charset=UTF-8")
  ResponseEntity<String> csv(
      @PathVariable long id, @RequestParam(defaultValue = "false") boolean raw) {
    return ResponseEntity.ok()
        .header(
            HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"phrasebook-" + id + ".csv\"")
        .body(books.csv(id, raw));
  }

  @PostMapping("/{id}/csv")
  TakenIn takeIn(@PathVariable long id, @RequestBody Csv csv, Principal who) {
    return new TakenIn(books.takeIn(id, csv.text(), who.getName()));
  }
}
