import { Column, Entity, PrimaryColumn } from 'typeorm';

@Entity('person')
export class PersonEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ name: 'recorded_at', type: 'integer' }) recordedAt: number;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) initials: string;
}
