using System.Globalization;

namespace Dibujo;

/// <summary>How often a test tries something at random: a few times at every run of the tests, more where the environment says so.</summary>
internal static class Tries
{
    /// <summary>What the variable (such as <c>DIBUJO_FUZZ</c>) says, else <paramref name="few"/>.</summary>
    internal static int Of(string variable, int few) =>
        int.TryParse(Environment.GetEnvironmentVariable(variable), CultureInfo.InvariantCulture, out var many) ? many : few;
}
