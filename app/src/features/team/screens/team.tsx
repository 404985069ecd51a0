import type { OneTimeLink, Role, TeamMember } from '@porch/contract/people';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Field } from '../../../kit/fields/field';
import { Copy, Problem, Row, Section } from '../../../kit/fields/form';
import { Button } from '../../../kit/press';
import { Sheet } from '../../../kit/sheets/sheet';
import { RowsComing } from '../../../kit/states';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { momentInWords } from '../../../kit/times';
import { HousePage } from '../../../shell/frame/house-page';
import { MINUTE_MS, useNow } from '../../../shell/live/use-now';
import { Face } from '../../../shell/pictures/face';
import { useHouse, useZone } from '../../../shell/session/house';
import { problemOf } from '../../../shell/session/problems';
import {
  useInvite,
  useMemberDeed,
  useNewPasswordLink,
  useOpenLinks,
  useSetRole,
  useWithdraw,
} from '../data/team';
import { words } from '../words';

const said = () => words().team;

const HandOver = ({ link: { link, expiresAt } }: { link: OneTimeLink }) => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  return (
    <>
      <Text kind="second" tone="slate">
        {said().linkMore(momentInWords(expiresAt, now, zone))}
      </Text>
      <Copy text={link} label={said().copyLink} />
    </>
  );
};

const Invite = () => {
  const zone = useZone();
  const now = useNow(MINUTE_MS);
  const [role, setRole] = useState<Role>('helper');
  const [name, setName] = useState('');
  const invite = useInvite();
  const { data: open } = useOpenLinks();
  const withdraw = useWithdraw();
  return (
    <>
      <Section title={said().invite}>
        <Choice
          label={said().inviteRole}
          options={[
            ['helper', said().helper],
            ['owner', said().owner],
          ]}
          value={role}
          onChange={(next) => {
            setRole(next);
            invite.reset();
          }}
        />
        <Text kind="second" tone="slate">
          {role === 'owner' ? said().ownerMore : said().helperMore}
        </Text>
        <Field
          label={said().inviteName}
          value={name}
          maxLength={80}
          autoComplete="off"
          onChangeText={(typed) => {
            setName(typed);
            invite.reset();
          }}
        />
        {invite.data ? (
          <>
            <HandOver link={invite.data} />
            <Row>
              <Button
                look="bare"
                label={said().makeAnother}
                onPress={() => {
                  setName('');
                  invite.reset();
                }}
              />
            </Row>
          </>
        ) : (
          <Row>
            <Button
              label={said().makeInvite}
              disabled={invite.isPending}
              onPress={() => invite.mutate({ role, name: name.trim() })}
            />
          </Row>
        )}
        <Problem text={problemOf(invite.error)} />
      </Section>
      {open && open.length > 0 ? (
        <Section title={said().openLinks}>
          <Text kind="second" tone="slate">
            {said().openLinksMore}
          </Text>
          {open.map(({ id, kind, role: as, name: whose, madeBy, expiresAt }) => {
            const what =
              kind === 'invite'
                ? said().inviteAs(said()[as ?? 'helper'], whose)
                : said().passwordFor(whose);
            const until = momentInWords(expiresAt, now, zone);
            return (
              <Row key={id}>
                <Text style={styles.grow}>
                  {said().linkUntil(what, madeBy || said().server, until)}
                </Text>
                <Button
                  look="bare"
                  label={said().withdraw}
                  aria-label={said().withdrawOf(what)}
                  onPress={() => withdraw.mutate(id)}
                />
              </Row>
            );
          })}
          <Problem text={problemOf(withdraw.error)} />
        </Section>
      ) : null}
    </>
  );
};

const MemberSheet = ({ member, close }: { member: TeamMember; close: () => void }) => {
  const deed = useMemberDeed();
  const role = useSetRole();
  const link = useNewPasswordLink();
  const [isAsking, setAsking] = useState(false);
  const { id, name } = member;
  const other: Role = member.role === 'owner' ? 'helper' : 'owner';
  return (
    <Sheet title={name} close={close}>
      <Button
        label={other === 'owner' ? said().makeOwner : said().makeHelper}
        onPress={() => role.mutate({ id, role: other }, { onSuccess: close })}
      />
      <Button
        label={said().signOut}
        onPress={() => deed.mutate({ id, deed: 'sign-out' }, { onSuccess: close })}
      />
      {link.data ? (
        <HandOver link={link.data} />
      ) : (
        <Button label={said().newPassword} onPress={() => link.mutate(id)} />
      )}
      {isAsking ? (
        <View role="alert" style={styles.ask}>
          <Text tone="brick">{said().removeSure(name)}</Text>
          <Row>
            <Button
              tone="brick"
              label={said().removeYes}
              onPress={() => deed.mutate({ id, deed: 'leave' }, { onSuccess: close })}
            />
            <Button look="bare" label={said().keep} onPress={() => setAsking(false)} />
          </Row>
        </View>
      ) : (
        <Button tone="brick" label={said().remove} onPress={() => setAsking(true)} />
      )}
      <Problem text={problemOf(deed.error ?? role.error ?? link.error)} />
    </Sheet>
  );
};

const Person = (props: { member: TeamMember; isMe: boolean; open: (() => void) | null }) => {
  const theme = useTheme();
  const { member, isMe } = props;
  const more = [
    isMe ? said().you : '',
    member.hasLeft ? said().left : said()[member.role],
    member.publicName,
    member.email,
  ];
  return (
    <View role="listitem" style={[styles.person, { borderColor: theme.seam }]}>
      <Face name={member.name} pictureId={member.pictureId} />
      <View style={styles.grow}>
        <Text kind="name">{member.name}</Text>
        <Text kind="second" tone="slate">
          {more.filter(Boolean).join(' · ')}
        </Text>
      </View>
      {props.open ? (
        <Button
          look="bare"
          label={said().actions}
          aria-label={said().more(member.name)}
          onPress={props.open}
        />
      ) : null}
    </View>
  );
};

/** Who belongs to the house; owners invite, change roles and let go. */
export const Team = () => {
  const { data: house } = useHouse();
  const [open, setOpen] = useState<string | null>(null);
  if (!house?.me) return <RowsComing />;
  const { me } = house;
  const isOwner = me.role === 'owner';
  const member = house.team.find(({ id }) => id === open);
  return (
    <HousePage title={said().title} isBehind>
      <View role="list" aria-label={said().title}>
        {house.team.map((one) => (
          <Person
            key={one.id}
            member={one}
            isMe={one.id === me.id}
            open={isOwner && one.id !== me.id && !one.hasLeft ? () => setOpen(one.id) : null}
          />
        ))}
      </View>
      {isOwner ? <Invite /> : null}
      {member ? <MemberSheet member={member} close={() => setOpen(null)} /> : null}
    </HousePage>
  );
};

const styles = StyleSheet.create({
  person: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    paddingVertical: 10,
    borderBottomWidth: 1,
  },
  grow: { flex: 1 },
  ask: { gap: 12 },
});
