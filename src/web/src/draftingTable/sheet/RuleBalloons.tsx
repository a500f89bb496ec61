import type { ElementKind } from '../../api/generated';
import type { OpenRecord } from '../../engine/openRecord';
import { useCase } from '../../engine/useRecord';
import { Balloon } from '../../sheet/Balloon';
import { useIsChosen, useTouchers, type Toucher, type Touching } from './touching';

interface Props {
  touching: Touching;
  record: OpenRecord;
  kind: ElementKind;
  elementKey: string;
  onChoose: (key: string) => void;
}

/** The numbers of the rules that touch an element. */
export function RuleBalloons({ kind, elementKey, ...shared }: Props) {
  return useTouchers(shared.touching, kind, elementKey).map((toucher) => (
    <RuleBalloon key={toucher.key} toucher={toucher} {...shared} />
  ));
}

function RuleBalloon({
  toucher,
  touching,
  record,
  onChoose,
}: { toucher: Toucher } & Pick<Props, 'touching' | 'record' | 'onChoose'>) {
  const isChosen = useIsChosen(touching, toucher.key);
  const isInForce = useCase(record, toucher.place) >= 0;
  return (
    <Balloon
      number={toucher.place + 1}
      isInForce={isInForce}
      isChosen={isChosen}
      label={`Rule ${toucher.place + 1}, ${toucher.name}${isInForce ? ', in force' : ''}`}
      onPress={() => onChoose(toucher.key)}
    />
  );
}
