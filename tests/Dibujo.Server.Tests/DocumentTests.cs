using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

public sealed class DocumentTests(Site site) : IClassFixture<Site>
{
    /// <summary>With DIBUJO_WRITE_OPENAPI set, writes the document that the front end's types are generated from.</summary>
    [Fact]
    public async Task The_committed_OpenAPI_document_is_the_servers_own()
    {
        var nobody = await site.As(null);
        var served = await nobody.Read("/openapi/v1.json");
        var file = Checkout.Path("src", "web", "openapi.json");
        if (Environment.GetEnvironmentVariable("DIBUJO_WRITE_OPENAPI") is not null)
        {
            await File.WriteAllTextAsync(file, served.ToJsonString(new() { WriteIndented = true }) + "\n");
        }

        Assert.True(JsonNode.DeepEquals(JsonNode.Parse(await File.ReadAllTextAsync(file)), served), "Run the tests with DIBUJO_WRITE_OPENAPI=1 and commit src/web/openapi.json.");
    }
}
