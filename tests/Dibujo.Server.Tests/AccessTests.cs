using System.Net;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Dibujo.Server.Tests;

public sealed class AccessTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void Every_endpoint_says_who_may_call_it()
    {
        var endpoints = site.Services.GetRequiredService<IEnumerable<EndpointDataSource>>().SelectMany(s => s.Endpoints).ToList();

        Assert.NotEmpty(endpoints);
        Assert.All(endpoints, endpoint => Assert.True(
            endpoint.Metadata.GetMetadata<IAuthorizeData>() is not null || endpoint.Metadata.GetMetadata<IAllowAnonymous>() is not null,
            endpoint.DisplayName));
    }

    [Theory]
    [InlineData("/api/record-types/object-loan/draft")]
    [InlineData("/api/record-types/object-loan/editions")]
    public async Task A_member_does_not_reach_an_administrators_endpoint(string address)
    {
        var lorenz = await site.As("lorenz");
        using var answer = await lorenz.Get(address);
        Assert.Equal(HttpStatusCode.Forbidden, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType!.MediaType);
    }

    [Fact]
    public async Task A_member_cannot_publish_or_write_the_draft()
    {
        var lorenz = await site.As("lorenz");
        using var published = await lorenz.Post("/api/record-types/object-loan/editions", new { version = 1, note = "" });
        using var check = await lorenz.Post("/api/packs/check", "{}");
        Assert.Equal(HttpStatusCode.Forbidden, published.StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, check.StatusCode);
    }

    [Theory]
    [InlineData("/api/record-types")]
    [InlineData("/api/records/1")]
    [InlineData("/api/records/1/history")]
    public async Task Nobody_reads_without_signing_in(string address)
    {
        var nobody = await site.As(null);
        using var answer = await nobody.Get(address);
        Assert.Equal(HttpStatusCode.Unauthorized, answer.StatusCode);
    }

    [Fact]
    public async Task A_change_needs_the_token_of_this_browser()
    {
        var lorenz = await site.As("lorenz");
        using var answer = await lorenz.Post("/api/records/1/saves", new { version = 1, changes = new { } }, withToken: false);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    [Fact]
    public async Task A_wrong_password_is_refused()
    {
        var nobody = await site.As(null);
        using var answer = await nobody.Post("/api/sign-in", new { userName = "ada", password = "wrong-password" });
        Assert.Equal(HttpStatusCode.Unauthorized, answer.StatusCode);
    }
}
