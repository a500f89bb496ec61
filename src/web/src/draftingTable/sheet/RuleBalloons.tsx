import type { ElementKind } from '../../api/generated';
import type { OpenRecord } from '../../engine/openRecord';
import { useCase } from '../../engine/useRecord';
import { Balloon } from '../../sheet/Balloon';
import { useTouchers, type Toucher, type Touching } from './touching';

interface Props {
  touching: Touching;
  record: OpenRecord;
  kind: ElementKind;
  elementKey: string;
  /** Key of the rule that is open. */
  chosen: string | undefined;
  onChoose: (key: string) => void;
}

/** The numbers of the rules that touch an element. */
export function RuleBalloons({ touching, kind, elementKey, ...shared }: Props) {
  return useTouchers(touching, kind, elementKey).map((toucher) => (
    <RuleBalloon key={toucher.key} toucher={toucher} {...shared} />
  ));
}

function RuleBalloon({
  toucher,
  record,
  chosen,
  onChoose,
}: { toucher: Toucher } & Pick<Props, 'record' | 'chosen' | 'onChoose'>) {
  const isInForce = useCase(record, toucher.place) >= 0;
  return (
    <Balloon
      number={toucher.place + 1}
      isInForce={isInForce}
      isChosen={toucher.key === chosen}
      label={`Rule ${toucher.place + 1}, ${toucher.name}${isInForce ? ', in force' : ''}`}
      onPress={() => onChoose(toucher.key)}
    />
  );
}
