package org.zestyporter.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.regex.Pattern;
import org.apache.tomcat.util.buf.EncodedSolidusHandling;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.ProviderManager;
import org.springframework.security.authentication.dao.DaoAuthenticationProvider;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.CsrfConfigurer;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.firewall.FirewalledRequest;
import org.springframework.security.web.firewall.HttpFirewall;
import org.springframework.security.web.firewall.RequestRejectedHandler;
import org.springframework.security.web.firewall.StrictHttpFirewall;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.zestyporter.core.value.ErrorCode;
import org.zestyporter.server.Settings;
import org.zestyporter.server.web.PageNonce;
import org.zestyporter.server.web.SecurityLog;

/** Everything of the API is closed but for signing in. */
@Configuration(proxyBeanMethods = false)
class SecurityConfig {
  private static final String CLOSED =
      body(
          HttpStatus.UNAUTHORIZED,
          ErrorCode.SIGNED_OUT,
          "You are signed out. Sign in again to go on; what you edited is kept.");

  private static final String STALE =
      body(
          HttpStatus.FORBIDDEN,
          ErrorCode.STALE_PAGE,
          "The page was open too long. Try again; what you edited is kept.");

  private static final String ODD =
      body(
          HttpStatus.BAD_REQUEST,
          ErrorCode.ODD_ADDRESS,
          "The address holds characters that are not allowed in it.");

  /** The address of a table, whose name may hold what stands in no other address. */
  private static final Pattern TABLE =
      Pattern.compile(
          "(/api/connections/[a-z0-9-]{1,40}/tables|/records/[a-z0-9-]{1,40})/[^/;\\\\]+(/[a-z]+)*");

  /** A problem detail (RFC 9457), for what is refused before anything of ours is reached. */
  private static String body(HttpStatus status, ErrorCode code, String detail) {
    return """
        {"status":%d,"title":"%s","code":"%s","kind":"user","detail":"%s"}"""
        .formatted(status.value(), status.getReasonPhrase(), code.word(), detail);
  }

  private static void say(HttpServletResponse response, int status, String body)
      throws IOException {
    response.setStatus(status);
    response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
    response.getWriter().write(body);
  }

  @Bean
  SecurityFilterChain chain(
      HttpSecurity http, SecurityContextRepository contexts, Settings settings, SecurityLog log)
      throws Exception {
    return http.authorizeHttpRequests(
            requests ->
                requests
                    .requestMatchers(HttpMethod.POST, "/api/session")
                    .permitAll()
                    .requestMatchers("/api/**", "/v3/**")
                    .authenticated()
                    .requestMatchers(HttpMethod.GET, "/**")
                    .permitAll()
                    .anyRequest()
                    .denyAll())
        .csrf(CsrfConfigurer::spa)
        .securityContext(c -> c.securityContextRepository(contexts))
        .requestCache(c -> c.disable())
        .logout(l -> l.disable())
        .addFilterBefore(new SessionLife(settings.sessionLife()), SecurityContextHolderFilter.class)
        .headers(
            headers ->
                headers
                    .addHeaderWriter(
                        (request, response) ->
                            response.setHeader("Content-Security-Policy", policy(request)))
                    .referrerPolicy(r -> r.policy(ReferrerPolicy.NO_REFERRER)))
        .exceptionHandling(
            e ->
                e.authenticationEntryPoint((request, response, error) -> say(response, 401, CLOSED))
                    .accessDeniedHandler(
                        (request, response, error) -> {
                          log.note(
                              "refused",
                              request.getRemoteUser(),
                              request.getRemoteAddr(),
                              request.getMethod() + " " + request.getRequestURI());
                          say(response, 403, STALE);
                        }))
        .build();
  }

  /** Only what the server itself sends is run, shown and spoken to. */
  private static String policy(HttpServletRequest request) {
    return "default-src 'self'; style-src 'self' 'nonce-"
        + PageNonce.of(request)
        + "'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self';"
        + " frame-ancestors 'none'";
  }

  /**
   * A table may have any name, so that its address may hold any sign, written by its number (RFC
   * 3986, section 2.1). Of all other addresses only plain ones are taken.
   */
  @Bean
  HttpFirewall firewall() {
    StrictHttpFirewall strict = new StrictHttpFirewall();
    StrictHttpFirewall ofTables = new StrictHttpFirewall();
    ofTables.setAllowUrlEncodedSlash(true);
    ofTables.setAllowUrlEncodedDoubleSlash(true);
    ofTables.setAllowUrlEncodedPercent(true);
    ofTables.setAllowSemicolon(true);
    ofTables.setAllowBackSlash(true);
    return new HttpFirewall() {
      @Override
      public FirewalledRequest getFirewalledRequest(HttpServletRequest request) {
        boolean isOfTable = TABLE.matcher(request.getRequestURI()).matches();
        return (isOfTable ? ofTables : strict).getFirewalledRequest(request);
      }

      @Override
      public HttpServletResponse getFirewalledResponse(HttpServletResponse response) {
        return strict.getFirewalledResponse(response);
      }
    };
  }

  /** The server's part of it: a slash that is written by its number parts no address. */
  @Bean
  WebServerFactoryCustomizer<TomcatServletWebServerFactory> namesWithSlashes() {
    String asItIs = EncodedSolidusHandling.PASS_THROUGH.getValue();
    return factory -> factory.addConnectorCustomizers(c -> c.setEncodedSolidusHandling(asItIs));
  }

  /** Addresses that could be meant to deceive never get as far as anything of ours. */
  @Bean
  RequestRejectedHandler rejected(SecurityLog log) {
    return (request, response, error) -> {
      log.note("address-refused", null, request.getRemoteAddr(), request.getRequestURI());
      say(response, 400, ODD);
    };
  }

  @Bean
  SecurityContextRepository contexts() {
    return new HttpSessionSecurityContextRepository();
  }

  @Bean
  PasswordEncoder passwordEncoder() {
    return PasswordEncoderFactories.createDelegatingPasswordEncoder();
  }

  @Bean
  AuthenticationManager authenticationManager(AccountService accounts, PasswordEncoder encoder) {
    DaoAuthenticationProvider provider = new DaoAuthenticationProvider(accounts);
    provider.setPasswordEncoder(encoder);
    return new ProviderManager(provider);
  }
}
