# frozen_string_literal: true

module Roost
  module Operations
    # What only the keeper may do: settings of the school, inviting, stopping, handing over.
    class KeepSchool
      SUBJECT = "Amber Roost: teach with us"
      NOT_SELF = "The keeper can't be stopped."
      SHUT_OUT = "A teacher who is stopped can't keep the school. Let them in first."
      STOPPED = "The teacher with that address is stopped. Let them in again first."
      NOBODY = "Choose another teacher to hand everything to."

      # @return [Core::Reading, nil] of what was saved; nil unless she keeps the school
      def change(account_id, form)
        keeping(account_id) do |school|
          school.read(form).map { |about| about.tap { school.change(about) } }
        end
      end

      # @param email [String] where the link goes; empty for one to hand over on paper
      # @return [Core::Reading, nil] of the link
      def invite(account_id, email)
        keeping(account_id) do |school|
          next Core::Reading.ok(link(school.invite(account_id, nil))) if email.to_s.strip.empty?

          Core::NewTeacher.email(email).and_then do |address|
            next Core::Reading.refused(STOPPED) if school.stopped?(address)

            Core::Reading.ok(link(school.invite(account_id, address)).tap { |link| mail(address, link, school.settings.name) })
          end
        end
      end

      # Shuts a teacher out, or lets them in again; what is theirs stays.
      # @return [Core::Reading, nil] of the teacher's id
      def stop(account_id, teacher_id, stopped: true)
        keeping(account_id) do |school|
          next nil unless school.teachers.any? { |teacher| teacher.id == teacher_id }
          next Core::Reading.refused(NOT_SELF) if teacher_id == account_id

          school.stop(teacher_id, stopped)
          Store::SignIns.new.finish(teacher_id) if stopped
          Core::Reading.ok(teacher_id)
        end
      end

      # Gives all lessons and classes of one teacher to another.
      # @return [Core::Reading, nil] of the receiver's id
      def hand_over(account_id, from, to)
        keeping(account_id) do |school|
          ids = school.teachers.map(&:id)
          next nil unless ids.include?(from)
          next Core::Reading.refused(NOBODY) if from == to || !ids.include?(to)

          school.hand_over(from, to)
          Core::Reading.ok(to)
        end
      end

      # Makes another teacher the keeper instead.
      # @return [Core::Reading, nil] of the new keeper's id
      def pass_on(account_id, to)
        keeping(account_id) do |school|
          teacher = school.teachers.find { |each| each.id == to }
          next nil unless teacher
          next Core::Reading.refused(SHUT_OUT) if teacher.stopped

          school.make_keeper(to)
          Core::Reading.ok(to)
        end
      end

      private

      def link(key) = "#{Roost.settings.base_url}/invitation?key=#{key}"

      def keeping(account_id)
        school = Store::School.new
        school.transaction { yield(school) if school.keeper?(account_id) }
      end

      def mail(address, link, name)
        where = "You are invited to teach with Amber Roost#{" at #{name}" unless name.empty?}."
        SendMail.new.call(recipient: address, subject: SUBJECT,
                          body: "#{where} Open this link within #{Store::School::INVITED_FOR} days:\n\n#{link}\n")
      end
    end
  end
end
