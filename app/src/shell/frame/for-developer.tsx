import type { ReactNode } from 'react';
import { Fold } from '../../kit/fields/fold';
import { Copy, Row } from '../../kit/fields/form';
import { Button } from '../../kit/press';
import { Text } from '../../kit/text';
import { shellWords } from '../words';

/** What only a developer can use: a page of this house to hand on, and what they need from here. */
export const ForDeveloper = (props: {
  page: 'bridge' | 'orders' | 'phone' | 'text';
  /** What they do with it. */
  more: string;
  isOpenAtFirst?: boolean;
  children?: ReactNode;
}) => {
  const { title, handOn, copy, open } = shellWords().forDeveloper;
  const address = `${location.origin}/developers/${props.page}.html`;
  return (
    <Fold title={title} isOpenAtFirst={props.isOpenAtFirst}>
      <Text kind="second" tone="slate">
        {props.more} {handOn}
      </Text>
      <Copy text={address} label={copy} />
      <Row>
        <Button
          look="bare"
          role="link"
          label={open}
          {...{ href: address, hrefAttrs: { target: '_blank', rel: 'noopener' } }}
        />
      </Row>
      {props.children}
    </Fold>
  );
};
