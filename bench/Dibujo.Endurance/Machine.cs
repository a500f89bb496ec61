using System.Globalization;

namespace Dibujo.Endurance;

/// <summary>How much of this machine's time went elsewhere: on a shared one, figures are worth as much as that is little.</summary>
internal sealed class Machine
{
    private const int Steal = 7;

    private readonly (double All, double Stolen) began = Read();

    /// <summary>The part of the processors' time, from 0 to 1, that the host gave to others since this was made; 0 where the system does not tell.</summary>
    internal double Stolen
    {
        get
        {
            var now = Read();
            return now.All > began.All ? (now.Stolen - began.Stolen) / (now.All - began.All) : 0;
        }
    }

    private static (double All, double Stolen) Read()
    {
        if (!File.Exists("/proc/stat"))
        {
            return default;
        }

        double[] ticks = [.. File.ReadLines("/proc/stat").First().Split(' ', StringSplitOptions.RemoveEmptyEntries).Skip(1).Select(one => double.Parse(one, CultureInfo.InvariantCulture))];
        return (ticks.Take(Steal + 1).Sum(), ticks[Steal]);
    }
}
