using System.Net;
using System.Runtime.Versioning;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Dibujo.Server.Tests;

/// <summary>What browsers are told, and what is told to nobody.</summary>
public sealed class HeaderTests(Site site) : IClassFixture<Site>
{
    [Theory]
    [InlineData("/")]
    [InlineData("/api/sign-in")]
    [InlineData("/api/record-types")]
    [InlineData("/api/nothing-here")]
    [InlineData("/health")]
    public async Task Every_answer_says_what_its_page_may_do(string address)
    {
        using var http = site.CreateClient();
        using var answer = await http.GetAsync(new Uri(address, UriKind.Relative));

        var policy = answer.Headers.GetValues("Content-Security-Policy").Single();
        var scripts = policy.Split(';').Single(part => part.Trim().StartsWith("script-src", StringComparison.Ordinal));
        Assert.DoesNotContain("unsafe-inline", policy, StringComparison.Ordinal);
        Assert.Equal("script-src 'self' 'wasm-unsafe-eval'", scripts.Trim());
        Assert.Contains("frame-ancestors 'none'", policy, StringComparison.Ordinal);
        Assert.Equal("nosniff", answer.Headers.GetValues("X-Content-Type-Options").Single());
        Assert.Equal("same-origin", answer.Headers.GetValues("Referrer-Policy").Single());
        Assert.True(answer.Headers.Contains("Permissions-Policy"));
        Assert.False(answer.Headers.Contains("Server"));
        if (address != "/health")
        {
            Assert.Equal("no-store", answer.Headers.CacheControl!.ToString());
        }
    }

    [Fact]
    public async Task Every_page_has_a_nonce_of_its_own()
    {
        using var http = site.CreateClient();
        var (one, other) = (await http.GetStringAsync(new Uri("/", UriKind.Relative)), await http.GetStringAsync(new Uri("/", UriKind.Relative)));

        Assert.Contains("csp-nonce", one, StringComparison.Ordinal);
        Assert.DoesNotContain("__style-nonce__", one, StringComparison.Ordinal);
        Assert.NotEqual(one, other);
    }

    [Fact]
    public async Task Over_https_browsers_keep_to_it_and_cookies_too()
    {
        using var plain = site.CreateClient(new() { BaseAddress = new("http://localhost") });
        using var secure = site.CreateClient(new() { BaseAddress = new("https://localhost") });
        using var one = await plain.GetAsync(new Uri("/api/sign-in", UriKind.Relative));
        using var other = await secure.GetAsync(new Uri("/api/sign-in", UriKind.Relative));

        Assert.False(one.Headers.Contains("Strict-Transport-Security"));
        Assert.True(other.Headers.Contains("Strict-Transport-Security"));
        Assert.All(other.Headers.GetValues("Set-Cookie"), cookie => Assert.Contains("secure", cookie, StringComparison.OrdinalIgnoreCase));
        Assert.All(other.Headers.GetValues("Set-Cookie"), cookie => Assert.Contains("samesite=strict", cookie, StringComparison.OrdinalIgnoreCase));
    }

    [Fact]
    public async Task What_a_stranger_says_is_forwarded_is_not_believed()
    {
        using var http = site.CreateClient();
        http.DefaultRequestHeaders.Add("X-Forwarded-Proto", "https");
        http.DefaultRequestHeaders.Add("X-Forwarded-For", "203.0.113.9");
        using var answer = await http.GetAsync(new Uri("/api/sign-in", UriKind.Relative));

        Assert.False(answer.Headers.Contains("Strict-Transport-Security"));
    }

    [Fact]
    public async Task Under_a_name_that_is_not_ours_nobody_is_answered()
    {
        using var http = site.CreateClient(new WebApplicationFactoryClientOptions { BaseAddress = new("http://loans.example") });
        using var answer = await http.GetAsync(new Uri("/api/sign-in", UriKind.Relative));

        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    [Fact]
    [UnsupportedOSPlatform("windows")]
    public async Task What_is_kept_is_for_the_eyes_of_its_owner()
    {
        await site.As(null);
        Assert.All(
            Directory.EnumerateFiles(site.Data, "dibujo.db*").Concat(Directory.EnumerateFiles(Path.Combine(site.Data, "keys"))),
            file => Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(file)));
    }
}
