using ArchUnitNET.Fluent.Slices;
using ArchUnitNET.Loader;
using ArchUnitNET.xUnit;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Dibujo.Server.Tests;

/// <summary>Arrows go one way.</summary>
public class LayerTests
{
    private static readonly ArchUnitNET.Domain.Architecture Architecture = new ArchLoader().LoadAssemblies(
        typeof(Dibujo.Core.Rules.Rule).Assembly, typeof(Store.DibujoDb).Assembly, typeof(Program).Assembly).Build();

    private static readonly ArchUnitNET.Domain.Architecture Core = new ArchLoader().LoadAssemblies(typeof(Dibujo.Core.Rules.Rule).Assembly).Build();

    [Fact]
    public void Core_depends_on_nothing_of_ours() =>
        Types().That().ResideInAssembly(typeof(Dibujo.Core.Rules.Rule).Assembly)
            .Should().NotDependOnAny(Types().That().ResideInAssembly(typeof(Store.DibujoDb).Assembly, typeof(Program).Assembly))
            .Check(Architecture);

    [Fact]
    public void Store_does_not_know_the_server() =>
        Types().That().ResideInAssembly(typeof(Store.DibujoDb).Assembly)
            .Should().NotDependOnAny(Types().That().ResideInAssembly(typeof(Program).Assembly))
            .Check(Architecture);

    [Fact]
    public void Rooms_of_the_core_depend_one_way() =>
        SliceRuleDefinition.Slices().Matching("Dibujo.Core.(*)").Should().BeFreeOfCycles().Check(Core);

    [Fact]
    public void Core_references_neither_web_nor_database() =>
        Assert.DoesNotContain(
            typeof(Dibujo.Core.Rules.Rule).Assembly.GetReferencedAssemblies(),
            name => name.Name!.StartsWith("Microsoft.", StringComparison.Ordinal) || name.Name.Contains("Sqlite", StringComparison.Ordinal));
}
