package org.zestyporter.server.store;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zestyporter.server.Settings;

@RestController
@RequestMapping("/api/space")
class SpaceController {
  private final Space space;
  private final Settings settings;

  SpaceController(Space space, Settings settings) {
    this.space = space;
    this.settings = settings;
  }

  /** Bytes that the data folder holds, and may hold. */
  record SpaceView(long used, long limit) {}

  @GetMapping
  SpaceView space() {
    return new SpaceView(space.used(), settings.dataLimit().toBytes());
  }
}
