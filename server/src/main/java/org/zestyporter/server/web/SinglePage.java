package org.zestyporter.server.web;

import org.springframework.context.annotation.Configuration;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.PathResourceResolver;

/** Serves the interface; every address that is no file and no part of the API shows it. */
@Configuration(proxyBeanMethods = false)
class SinglePage implements WebMvcConfigurer {

  @Override
  public void addResourceHandlers(ResourceHandlerRegistry registry) {
    registry
        .addResourceHandler("/assets/**")
        .addResourceLocations("classpath:/static/assets/")
        .setCacheControl(CacheControl.maxAge(java.time.Duration.ofDays(365)).immutable());
    registry
        .addResourceHandler("/**")
        .addResourceLocations("classpath:/static/")
        .setCacheControl(CacheControl.noCache())
        .resourceChain(true)
        .addResolver(new PageResolver());
  }

  private static final class PageResolver extends PathResourceResolver {
    @Override
    protected Resource getResource(String path, Resource location) throws java.io.IOException {
      Resource file = super.getResource(path, location);
      if (file != null && !path.isEmpty()) {
        return file;
      }
      boolean page = !path.startsWith("api/") && !path.startsWith("v3/") && !path.contains(".");
      return page ? new ClassPathResource("static/index.html") : null;
    }
  }
}
