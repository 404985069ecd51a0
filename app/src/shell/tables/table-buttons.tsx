import { Row } from '../../kit/fields/form';
import { Button } from '../../kit/press';
import { chooseFiles } from '../pictures/file-chooser';
import { shellWords } from '../words';

export type TableForm = 'csv' | 'json';

const accepts = { csv: '.csv,.tsv,.txt,text/csv', json: '.json,application/json' };

/** Something in and out as tables: a file is chosen to be read in, and written out by a link that leaves the app where it is. */
export const TableButtons = (props: {
  /** What the written file is called, without its ending. */
  name: string;
  address: (form: TableForm) => string;
  isReading: boolean;
  take: (form: TableForm, file: File) => void;
}) => {
  const said = shellWords().tables;
  const choose = (form: TableForm) => (): void =>
    chooseFiles(([file]) => file && props.take(form, file), { accept: accepts[form] });
  const out = (form: TableForm) => ({
    href: props.address(form),
    hrefAttrs: { download: `${props.name}.${form}` },
  });
  return (
    <Row>
      <Button label={said.takeCsv} disabled={props.isReading} onPress={choose('csv')} />
      <Button label={said.takeJson} disabled={props.isReading} onPress={choose('json')} />
      <Button look="bare" role="link" label={said.giveCsv} {...out('csv')} />
      <Button look="bare" role="link" label={said.giveJson} {...out('json')} />
    </Row>
  );
};
