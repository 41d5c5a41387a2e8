package org.zestyporter.server.source;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.security.Principal;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.zestyporter.server.web.Deletion;

@RestController
@RequestMapping("/api/sources")
class SourceController {
  private final SourceService sources;

  SourceController(SourceService sources) {
    this.sources = sources;
  }

  /** Takes a file as the raw body of the request. */
  @PostMapping(consumes = "application/octet-stream")
  @ResponseStatus(HttpStatus.CREATED)
  SourceService.Source bring(
      @RequestParam String name, HttpServletRequest request, Principal principal)
      throws IOException {
    String bare = name.replaceAll(".*[/\\\\]", "").replaceAll("\\p{Cntrl}", "");
    return sources.bring(
        bare.length() > 200 ? bare.substring(0, 200) : bare,
        request.getInputStream(),
        principal.getName());
  }

  @GetMapping
  List<SourceService.Source> all() {
    return sources.all();
  }

  /** What deleting a file means. */
  @GetMapping("/{id}/deletion")
  Deletion deletion(@PathVariable long id) {
    return sources.deletion(id);
  }

  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void delete(@PathVariable long id) throws IOException {
    sources.delete(id);
  }

  @GetMapping("/{id}")
  SourceService.Source find(@PathVariable long id) {
    return sources.find(id);
  }

  /** How far the file is read. */
  @GetMapping("/{id}/progress")
  SourceService.Reached reached(@PathVariable long id) throws IOException {
    return sources.reached(id);
  }

  /** The first rows of the file, which may still be being read. */
  @GetMapping("/{id}/peek")
  SourceService.Peek peek(@PathVariable long id) throws IOException {
    return sources.peek(id);
  }

  /** The rows in the first bytes of a file, which itself is still on its way. */
  @PostMapping(path = "/peek", consumes = "application/octet-stream")
  SourceService.Peek peek(HttpServletRequest request) throws IOException {
    return sources.peek(request.getInputStream());
  }
}
