package org.zestyporter.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.ViewControllerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.PathResourceResolver;
import org.springframework.web.servlet.resource.ResourceTransformerChain;
import org.springframework.web.servlet.resource.TransformedResource;

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
        // not remembered, since each answer's page has a word of its own
        .resourceChain(false)
        .addResolver(new PageResolver())
        .addTransformer(SinglePage::withNonce);
  }

  /** A table may have any name, also one that looks like that of a file. */
  @Override
  public void addViewControllers(ViewControllerRegistry registry) {
    registry.addViewController("/records/**").setViewName("forward:/index.html");
  }

  private static Resource withNonce(
      HttpServletRequest request, Resource resource, ResourceTransformerChain chain)
      throws IOException {
    if (!"index.html".equals(resource.getFilename())) {
      return chain.transform(request, resource);
    }
    String page = resource.getContentAsString(StandardCharsets.UTF_8);
    return new TransformedResource(
        resource,
        page.replace("PAGE_NONCE", PageNonce.of(request)).getBytes(StandardCharsets.UTF_8));
  }

  private static final class PageResolver extends PathResourceResolver {
    @Override
    protected Resource getResource(String path, Resource location) throws IOException {
      Resource file = super.getResource(path, location);
      if (file != null && !path.isEmpty()) {
        return file;
      }
      boolean page = !path.startsWith("api/") && !path.startsWith("v3/") && !path.contains(".");
      return page ? new ClassPathResource("static/index.html") : null;
    }
  }
}
